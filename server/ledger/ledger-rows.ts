import { createHash } from "node:crypto";
import { askedOf, writeDestination } from "@vennet/core/destination/destination";
import { kindOf } from "@vennet/core/destination/kinds/kinds";
import type { LinkedPart } from "@vennet/core/publication/linked-part";
import type { LinkUse } from "./link-use.entity.ts";
import type { Place } from "./place.entity.ts";

/** A chapter's links and places as rows: some at a time as JSON, which crosses from process to process at little cost. */
export interface LedgerRows {
  links: string[];
  places: string[];
  /** By which a chapter knows whether it has these rows already. */
  hashes: { linksHash: string; placesHash: string };
}

type OfChapter = "chapterId" | "bookId";

/** The columns of a row, in the order in which a row lists its values. */
export const linkColumns = [
  "ordinal",
  "linkId",
  "kind",
  "destination",
  "destinationHash",
  "fileId",
  "placeId",
  "askedAddress",
  "host",
  "askedHash",
  "text",
  "description",
  "coverage",
  "heading",
] as const satisfies Exclude<keyof LinkUse, OfChapter>[];
export const placeColumns = [
  "ordinal",
  "placeId",
  "kind",
  "level",
  "text",
  "context",
  "noteOrdinal",
  "note",
  "list",
] as const satisfies Exclude<keyof Place, OfChapter>[];

const rowsAtOnce = 500;

/** The rows that follow from a part of a publication. */
export function ledgerRows(part: LinkedPart<unknown>): LedgerRows {
  const links = part.links().map((use, ordinal): Omit<LinkUse, OfChapter> => {
    const asked = askedOf(use.destination);
    const destination = writeDestination(use.destination);
    const outside = kindOf(use.destination).outside(use.destination);
    return {
      ordinal,
      linkId: use.id,
      kind: use.destination.kind,
      destination,
      destinationHash: asked === null ? null : hash(destination),
      fileId: outside.kind === "file" ? outside.file : null,
      placeId: outside.kind === "place" ? outside.target : null,
      askedAddress: asked?.address ?? null,
      host: asked?.host.slice(0, 300) ?? null,
      askedHash: asked === null ? null : hash(asked.address),
      text: use.text.slice(0, 10_000),
      description: use.description,
      coverage: use.on,
      heading: use.under.slice(0, 1000),
    };
  });
  const places = part.places().map((place, ordinal) => ({
    ordinal,
    placeId: place.id,
    kind: place.kind,
    level: place.level,
    text: place.text.slice(0, 1000),
    context: place.context,
    noteOrdinal: place.ordinal,
    note: place.note,
    list: place.list === null ? null : JSON.stringify(place.list),
  }));
  const rows = { links: inBatches(links, linkColumns), places: inBatches(places, placeColumns) };
  const hashes = { linksHash: hash(rows.links.join("\n")), placesHash: hash(rows.places.join("\n")) };
  return { ...rows, hashes };
}

function inBatches<K extends string>(rows: readonly Record<K, unknown>[], columns: readonly K[]): string[] {
  const batches: string[] = [];
  for (let i = 0; i < rows.length; i += rowsAtOnce) {
    const batch = rows.slice(i, i + rowsAtOnce).map((row) => columns.map((column) => row[column]));
    batches.push(JSON.stringify(batch));
  }
  return batches;
}

/** The key of a text of any length. */
function hash(text: string): string {
  return createHash("sha256").update(text).digest("hex");
}
