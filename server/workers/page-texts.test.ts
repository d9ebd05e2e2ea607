import { bookInLanguage, sentenceLanguages } from "@vennet/core/test/book-in-languages";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { textsBesidePdfJs } from "@vennet/core/test/same-text";
import { expect, test } from "@jest/globals";
import { generatedBooks } from "../test/exports-to-damage.ts";
import { Typesetter } from "./typesetter.ts";

test("the text of every page is the one that pdf.js, Mozilla's reader, tells of it", async () => {
  const typesetter = new Typesetter();
  const books = [bookOfEveryFeature(), ...generatedBooks(10), ...sentenceLanguages.map(bookInLanguage)];
  let all = 0;
  for (const book of books) {
    const { read, different } = await textsBesidePdfJs(typesetter.write(book, true).pdf);
    expect(different).toEqual([]);
    all += read;
  }
  expect(all).toBeGreaterThan(books.length);
});
