import type { EntityManager } from "typeorm";
import type { Chapter } from "../chapters/chapter.entity.ts";
import { linkColumns, placeColumns, type LedgerRows } from "./ledger-rows.ts";
import { LinkUse } from "./link-use.entity.ts";
import { Place } from "./place.entity.ts";

/** Writes a chapter's links and places anew, within the transaction of its save. */
export async function writeLedger(
  manager: EntityManager,
  { id, bookId }: Pick<Chapter, "id" | "bookId">,
  { links, places }: LedgerRows,
): Promise<void> {
  await manager.delete(LinkUse, { chapterId: id });
  await manager.delete(Place, { chapterId: id });
  const insert = async (table: string, columns: readonly string[], batches: string[]): Promise<void> => {
    const named = ["chapterId", "bookId", ...columns].map((column) => `\`${column}\``).join(", ");
    for (const batch of batches) {
      const rows = (JSON.parse(batch) as unknown[][]).map((row) => [id, bookId, ...row]);
      // Thousands of rows at once: the mapper would take each of their values apart.
      await manager.query(`INSERT INTO ${table} (${named}) VALUES ?`, [rows]);
    }
  };
  await insert("link_use", linkColumns, links);
  await insert("place", placeColumns, places);
}
