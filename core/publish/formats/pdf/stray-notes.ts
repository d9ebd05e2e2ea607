import type { Book } from "../../../manuscript/book.ts";
import { orderNotes, referenceId } from "../../../manuscript/notes.ts";

/**
 * How a paragraph is set so that its notes begin on the page of their marks: with lines that may stand alone at the
 * head or foot of a page, which the typesetter else moves away from notes that it has set already; or from the next page on.
 */
export type Keep = "lines" | "next-page";

/**
 * What to ask of the paragraphs of notes at the foot of pages that do not begin on the page of their mark. One stray moves
 * all that follows it in its chapter, so the paragraphs of the whole chapter are asked for what costs little, and then those
 * of its strays one by one; a chapter begins a page, so nothing of this moves what stands in another.
 * @param places where everything fell
 * @param before what has been asked, by the ids of notes
 * @returns the same with more; null where there is no more to ask
 */
export function keepNotes(
  { conventions: { notesAt }, chapters }: Pick<Book, "conventions" | "chapters">,
  places: readonly { id: string; page: number }[],
  before: ReadonlyMap<string, Keep>,
): Map<string, Keep> | null {
  if (notesAt !== "page") return null;
  const pageOf = new Map(places.map(({ id, page }) => [id, page]));
  const asked = new Map(before);
  for (const { doc } of chapters) {
    const called = orderNotes(doc).filter((id) => pageOf.has(id) && pageOf.has(referenceId(id, 1)));
    const strays = called.filter((id) => pageOf.get(id) !== pageOf.get(referenceId(id, 1)));
    if (strays.length === 0) continue;
    if (!called.some((id) => before.has(id))) for (const id of called) asked.set(id, "lines");
    const first = strays.find((id) => before.get(id) === "lines");
    if (first !== undefined) asked.set(first, "next-page");
  }
  const isMore = [...asked].some(([id, keep]) => before.get(id) !== keep);
  return isMore ? asked : null;
}
