import type { PlacesOfChapter } from "@vennet/core/manuscript/book-index";
import type { Place } from "@vennet/core/manuscript/outline";
import type { DataSource } from "typeorm";
import { chapterOrder } from "./reading-order.ts";

/** A place, called `p`, as it is told. */
export const placeFields =
  "p.placeId AS id, p.kind, p.level, p.text, p.context, p.noteOrdinal AS ordinal, p.note, p.list";

type Row = Omit<Place, "list"> & { chapterId: string; role: PlacesOfChapter["role"]; list: string | null };

/** The landing places of a book's chapters, in reading order, from the ledger's rows: of their positions only the order is true. */
export async function placesOfChapters(
  database: DataSource,
  bookId: string,
): Promise<(PlacesOfChapter & { id: string })[]> {
  const rows: Row[] = await database.query(
    `SELECT c.id AS chapterId, c.role, p.ordinal AS position, ${placeFields}
       FROM chapter c JOIN place p ON p.chapterId = c.id
       WHERE c.bookId = ? AND c.deletedAt IS NULL ORDER BY ${chapterOrder.join(", ")}, p.ordinal`,
    [bookId],
  );
  const chapters = new Map<string, { id: string; role: PlacesOfChapter["role"]; places: Place[] }>();
  for (const { chapterId, role, list, ...place } of rows) {
    const chapter = chapters.get(chapterId) ?? { id: chapterId, role, places: [] };
    chapters.set(chapterId, chapter);
    chapter.places.push({ ...place, list: list === null ? null : (JSON.parse(list) as Place["list"]) });
  }
  return [...chapters.values()];
}
