import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";
import { typesetter } from "../workers/typesetter.ts";

/** Sets one chapter without the others, as it will look in the PDF. */
export function run({
  book,
  chapter,
  pageOfPlace,
}: {
  book: PlainBook;
  chapter: number;
  pageOfPlace: Record<string, string>;
}): Uint8Array {
  const pages = new Map(Object.entries(pageOfPlace));
  return typesetter().write(bookOfPlain(book), false, "none", { chapter, pageOfPlace: pages }).pdf;
}
