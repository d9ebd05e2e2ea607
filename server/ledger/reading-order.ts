import type { DataSource } from "typeorm";
import type { LedgerQuery } from "./ledger.dto.ts";

/** By what chapters, called `c`, are in reading order: companion pages come after all others. */
export const chapterOrder = ["c.role = 'companion'", "c.position"];

/** Links of one chapter that follow each other, by their ordinals. */
export interface Stretch {
  chapterId: string;
  first: number;
  last: number;
}

type Asked = Pick<LedgerQuery, "chapter" | "direction"> & { offset: number; limit: number };

/**
 * How many links a chapter, called `c`, has: they are counted from 0, without gaps. MariaDB reads all rows for a maximum here, and
 * one for the first of an order.
 */
export const linkCount =
  "COALESCE((SELECT u.ordinal + 1 FROM link_use u WHERE u.chapterId = c.id ORDER BY u.ordinal DESC LIMIT 1), 0)";

/** How many links the chapters of a book have, or one of them, in reading order. */
export async function linkCounts(
  database: DataSource,
  bookId: string,
  chapter?: string,
): Promise<{ id: string; count: number }[]> {
  const rows: { id: string; count: number }[] = await database.query(
    `SELECT c.id, ${linkCount} AS count FROM chapter c
       WHERE c.bookId = ? AND c.deletedAt IS NULL${chapter ? " AND c.id = ?" : ""} ORDER BY ${chapterOrder.join(", ")}`,
    [bookId, ...(chapter ? [chapter] : [])],
  );
  return rows.map(({ id, count }) => ({ id, count: Number(count) }));
}

/**
 * Where some links of a book stand, of all in reading order or the other way round, so that those before need not be read to
 * come to them, however many they are.
 * @returns with how many links there are in all
 */
export async function stretchesOf(
  database: DataSource,
  bookId: string,
  { chapter, direction, offset, limit }: Asked,
): Promise<{ total: number; stretches: Stretch[] }> {
  const counts = await linkCounts(database, bookId, chapter);
  const isDown = direction === "down";
  if (isDown) counts.reverse();
  const stretches: Stretch[] = [];
  let before = 0;
  for (const { id, count } of counts) {
    const from = Math.max(offset - before, 0);
    const to = Math.min(offset + limit - before, count);
    if (from < to)
      stretches.push(
        isDown
          ? { chapterId: id, first: count - to, last: count - 1 - from }
          : { chapterId: id, first: from, last: to - 1 },
      );
    before += count;
  }
  return { total: before, stretches };
}
