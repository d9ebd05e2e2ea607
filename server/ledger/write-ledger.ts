import type { EntityManager } from "typeorm";
import type { Chapter } from "../chapters/chapter.entity.ts";
import { GonePlace } from "./gone-place.entity.ts";
import { linkColumns, placeColumns, type LedgerRows } from "./ledger-rows.ts";
import { LinkUse } from "./link-use.entity.ts";
import { Place } from "./place.entity.ts";

/** Writes the links and places of a new chapter as rows, within the transaction that adds it. */
export async function insertLedger(
  manager: EntityManager,
  chapter: Pick<Chapter, "id" | "bookId">,
  ledger: LedgerRows,
): Promise<void> {
  await insertRows(manager, chapter, "link_use", linkColumns, rowsOf(ledger.links));
  await insertRows(manager, chapter, "place", placeColumns, rowsOf(ledger.places));
}

/**
 * Writes a chapter's links and places as rows, within the transaction of its save; those that are written already stay.
 * Most saves change words, and neither links nor places.
 * @param chapter with the hashes of the rows that it has
 */
export async function writeLedger(
  manager: EntityManager,
  { id, bookId, linksHash, placesHash }: Pick<Chapter, "id" | "bookId" | "linksHash" | "placesHash">,
  ledger: LedgerRows,
): Promise<void> {
  if (linksHash !== ledger.hashes.linksHash) {
    await manager.delete(LinkUse, { chapterId: id });
    await insertRows(manager, { id, bookId }, "link_use", linkColumns, rowsOf(ledger.links));
  }
  if (placesHash === ledger.hashes.placesHash) return;
  const before = await manager.find(Place, {
    where: { chapterId: id },
    select: { placeId: true, text: true },
  });
  await manager.delete(Place, { chapterId: id });
  const placeRows = rowsOf(ledger.places);
  await insertRows(manager, { id, bookId }, "place", placeColumns, placeRows);
  const at = placeColumns.indexOf("placeId");
  await rememberGone(manager, bookId, before, new Set(placeRows.flat().map((row) => row[at])));
}

async function insertRows(
  manager: EntityManager,
  { id, bookId }: Pick<Chapter, "id" | "bookId">,
  table: string,
  columns: readonly string[],
  batches: readonly unknown[][][],
): Promise<void> {
  const named = ["chapterId", "bookId", ...columns].map((column) => `\`${column}\``).join(", ");
  for (const batch of batches) {
    const rows = batch.map((row) => [id, bookId, ...row]);
    // Thousands of rows at once: the mapper would take each of their values apart.
    await manager.query(`INSERT INTO ${table} (${named}) VALUES ?`, [rows]);
  }
}

function rowsOf(batches: readonly string[]): unknown[][][] {
  return batches.map((batch) => JSON.parse(batch) as unknown[][]);
}

/** Keeps the names of places that were in a chapter and are not any more. */
async function rememberGone(
  manager: EntityManager,
  bookId: string,
  before: readonly Pick<Place, "placeId" | "text">[],
  now: ReadonlySet<unknown>,
): Promise<void> {
  const gone = before
    .filter(({ placeId, text }) => !now.has(placeId) && text !== "")
    .map(({ placeId, text }) => ({ bookId, placeId, name: text }));
  if (gone.length > 0) await manager.upsert(GonePlace, gone, ["bookId", "placeId"]);
}
