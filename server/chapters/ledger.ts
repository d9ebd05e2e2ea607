import { createHash } from "node:crypto";
import { writeDestination } from "@vennet/core/destination/destination";
import { linkUses } from "@vennet/core/manuscript/links";
import { askedAddress } from "@vennet/core/reach/follow";
import type { Node } from "prosemirror-model";
import type { EntityManager } from "typeorm";
import type { Chapter } from "./chapter.entity.ts";
import { LinkUse } from "./link-use.entity.ts";

/** The key under which what a server answered is kept: one for every address without its fragment. */
export function askedHash(address: string): string {
  return createHash("sha256").update(askedAddress(address)).digest("hex");
}

/** Writes a chapter's ledger rows anew from its document, within the transaction of its save. */
export async function rebuildLedger(manager: EntityManager, chapter: Chapter, doc: Node): Promise<void> {
  await manager.delete(LinkUse, { chapterId: chapter.id });
  const rows = linkUses(doc).map((use, ordinal) => ({
    chapterId: chapter.id,
    ordinal,
    bookId: chapter.bookId,
    linkId: use.id,
    kind: use.destination.kind,
    destination: writeDestination(use.destination),
    askedHash: use.destination.kind === "web" ? askedHash(use.destination.address) : null,
    text: use.text.slice(0, 10_000),
  }));
  for (let i = 0; i < rows.length; i += 500) await manager.insert(LinkUse, rows.slice(i, i + 500));
}
