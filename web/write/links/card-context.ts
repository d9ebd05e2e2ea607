import type { Finding } from "@vennet/core/checks/finding";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import type { LinkChange } from "@vennet/core/manuscript/edit-links";
import type { LinkUse } from "@vennet/core/manuscript/links";
import type { CrossReference } from "@vennet/core/manuscript/attributes";
import type { LinkState } from "../../api/client";
import type { ReferenceInfo } from "../references/reference-forms";
import type { Acceptances } from "./use-acceptances";

/** What can be done from a card to its link. */
export interface CardActions {
  select: (use: LinkUse) => void;
  change: (use: LinkUse, to: LinkChange) => void;
  /** Says what a cross-reference says from now on. */
  say: (use: LinkUse, to: Partial<Pick<CrossReference, "form" | "fallback">>) => void;
  remove: (use: LinkUse) => void;
  openLine: (use: LinkUse) => void;
  everyMention: (use: LinkUse) => void;
  take: (use: LinkUse) => void;
  goTo: (place: string) => void;
  leave: () => void;
  follow: (use: LinkUse | null) => void;
}

export interface CardState {
  state: LinkState;
  reason: string;
  movedTo: string | null;
}

/** What every card of a chapter is told. */
export interface CardContext {
  bookId: string;
  names: DestinationNames;
  states: ReadonlyMap<string, CardState>;
  findings: Map<string, Finding[]>;
  acceptances: Acceptances;
  /** What the cross-reference with an id is, and what each form of it would say; null for one that is gone. */
  referenceOf: (use: LinkUse) => ReferenceInfo | null;
  /** The id of the link whose destination is about to be opened. */
  following: string | null;
  actions: CardActions;
}
