import { createHash } from "node:crypto";
import { writeDestination, type Destination } from "@vennet/core/destination/destination";
import { linkUses } from "@vennet/core/manuscript/links";
import { placesOf } from "@vennet/core/manuscript/outline";
import { askedAddress } from "@vennet/core/reach/follow";
import type { Node } from "prosemirror-model";
import type { EntityManager } from "typeorm";
import type { Chapter } from "./chapter.entity.ts";
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
  const headings = headingsOf(doc);
  let under = 0;
  const uses = linkUses(doc).map((use, ordinal) => {
    while (under < headings.length && headings[under]!.position < use.from) under++;
    const asked = askedOf(use.destination);
    const destination = writeDestination(use.destination);
    return {
      chapterId,
      ordinal,
      bookId,
      linkId: use.id,
      kind: use.destination.kind,
      destination,
      destinationHash: asked === null ? null : hash(destination),
      askedHash: asked === null ? null : hash(asked),
      text: use.text.slice(0, 10_000),
      description: use.description,
      coverage: use.on,
      heading: headings[under - 1]?.text.slice(0, 1000) ?? "",
    };
  });
  const places = placesOf(doc).map((place, ordinal) => ({
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

/** What is asked to learn about a destination: a page without its fragment, or the domains of an email. */
function askedOf(destination: Destination): string | null {
  if (destination.kind === "web") return askedAddress(destination.address);
  if (destination.kind === "email") return destination.address;
  return destination.kind === "file" && "share" in destination ? askedAddress(destination.share) : null;
}

function headingsOf(doc: Node): { position: number; text: string }[] {
  const headings: { position: number; text: string }[] = [];
  doc.descendants((node, position) => {
    if (node.type.name === "heading") headings.push({ position, text: node.textContent.trim() });
    return !node.isTextblock;
  });
  return headings;
}
