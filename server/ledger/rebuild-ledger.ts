import { createHash } from "node:crypto";
import { askedOf, writeDestination } from "@vennet/core/destination/destination";
import { kindOf } from "@vennet/core/destination/kinds/kinds";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
import type { Node } from "prosemirror-model";
import type { EntityManager } from "typeorm";
import type { Chapter } from "../chapters/chapter.entity.ts";
import { LinkUse } from "./link-use.entity.ts";
import { Place } from "./place.entity.ts";

const rowsAtOnce = 500;

/** The key of a text of any length. */
function hash(text: string): string {
  return createHash("sha256").update(text).digest("hex");
}

/** Writes a chapter's links and places anew from its document, within the transaction of its save. */
export async function rebuildLedger(
  manager: EntityManager,
  chapter: Pick<Chapter, "id" | "bookId">,
  doc: Node,
): Promise<void> {
  await manager.delete(LinkUse, { chapterId: chapter.id });
  await manager.delete(Place, { chapterId: chapter.id });
  const { id: chapterId, bookId } = chapter;
  const part = new ManuscriptChapter(doc);
  const uses = part.links().map((use, ordinal) => {
    const asked = askedOf(use.destination);
    const destination = writeDestination(use.destination);
    const outside = kindOf(use.destination).outside(use.destination);
    return {
      chapterId,
      ordinal,
      bookId,
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
    chapterId,
    ordinal,
    bookId,
    placeId: place.id,
    kind: place.kind,
    level: place.level,
    text: place.text.slice(0, 1000),
    context: place.context,
    noteOrdinal: place.ordinal,
    note: place.note,
    list: place.list,
  }));
  for (let i = 0; i < uses.length; i += rowsAtOnce)
    await manager.insert(LinkUse, uses.slice(i, i + rowsAtOnce));
  for (let i = 0; i < places.length; i += rowsAtOnce)
    await manager.insert(Place, places.slice(i, i + rowsAtOnce));
}
