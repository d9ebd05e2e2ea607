import type { Conventions } from "../../../manuscript/conventions.ts";
import { referenceId } from "../../../manuscript/notes.ts";

/**
 * How a paragraph is set so that its notes begin on the page of their marks: with lines that may stand alone at the
 * head or foot of a page, which the typesetter else moves away from notes that it has set already; or from the next page on.
 */
export type Keep = "lines" | "next-page";

/**
 * What to ask of the paragraphs of notes at the foot of pages that do not begin on the page of their mark.
 * @param places where everything fell
 * @param before what has been asked, by the ids of notes
 * @returns the same with more; null where there is no more to ask
 */
export function keepNotes(
  { notesAt }: Pick<Conventions, "notesAt">,
  places: readonly { id: string; page: number }[],
  before: ReadonlyMap<string, Keep>,
): Map<string, Keep> | null {
  if (notesAt !== "page") return null;
  const pageOf = new Map(places.map(({ id, page }) => [id, page]));
  const called = [...pageOf.keys()].filter((id) => pageOf.has(referenceId(id, 1)));
  const strays = called.filter((id) => pageOf.get(id) !== pageOf.get(referenceId(id, 1)));
  if (strays.length === 0) return null;
  // One stray moves all that follows, so all are asked at once for what costs little.
  if (before.size === 0) return new Map(called.map((id) => [id, "lines"]));
  const first = strays.find((id) => before.get(id) === "lines");
  return first === undefined ? null : new Map(before).set(first, "next-page");
}
