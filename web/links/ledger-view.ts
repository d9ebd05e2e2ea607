import type { LedgerRow, LinkState } from "../api/client";
import type { DestinationKind } from "@vennet/core/destination/kinds/kinds";

/** The columns of the ledger, in their order, with how much of the width each has. */
export const columns = [
  ["text", "Link text", "minmax(7rem,2fr)"],
  ["kind", "Kind", "6.7rem"],
  ["destination", "Destination", "minmax(7rem,3.2fr)"],
  ["description", "Description", "minmax(5.3rem,1.5fr)"],
  ["chapter", "Chapter", "minmax(5.3rem,1.5fr)"],
  ["heading", "Heading", "minmax(5.3rem,1.5fr)"],
  ["state", "State", "7rem"],
  ["checked", "Last check", "7rem"],
] as const;

export type Column = (typeof columns)[number][0];
export type Sort = Column | "position";

/** Which links are shown. */
export interface Filter {
  search?: string;
  kind?: DestinationKind;
  state?: LinkState;
  chapter?: string;
  destination?: string;
  described?: "yes" | "no";
}

export const rowsAtOnce = 200;

/** What tells one link of the book from all others. */
export function rowKey({ chapterId, linkId }: Pick<LedgerRow, "chapterId" | "linkId">): string {
  return `${chapterId} ${linkId}`;
}
