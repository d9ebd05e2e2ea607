import { longWordsOf } from "@vennet/core/publish/formats/pdf/long-words";
import { ownFonts } from "@vennet/core/publish/own-fonts";
import { CodedError } from "@vennet/core/errors";
import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";
import { typesetter } from "../workers/typesetter.ts";

/**
 * Sets one chapter without the others, as it will look in the PDF.
 * @throws CodedError `long-word` where it has a word that no page can hold
 */
export function run({
  book,
  chapter,
  pageOfPlace,
}: {
  book: PlainBook;
  chapter: number;
  pageOfPlace: Record<string, string>;
}): Uint8Array {
  const whole = bookOfPlain(book);
  const [longWord] = longWordsOf(whole.chapters[chapter]!.doc);
  if (longWord) throw new CodedError("long-word", longWord.told);
  const pages = new Map(Object.entries(pageOfPlace));
  const { faces } = ownFonts(whole, "pdf");
  return typesetter(faces).write(whole, false, "none", { chapter, pageOfPlace: pages }).pdf;
}
