import { expect, test } from "@jest/globals";
import { bookInLanguage, sentenceLanguages } from "@vennet/core/test/book-in-languages";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { PdfObjects } from "@vennet/core/pdf/pdf-objects";
import { PdfRef, type PdfValue } from "@vennet/core/pdf/pdf-values";
import { generatedBooks } from "../test/exports-to-damage.ts";
import { matterhorn } from "../test/matterhorn.ts";
import { Typesetter } from "./typesetter.ts";

const typesetter = new Typesetter();

test("books in all languages, of every feature and generated ones pass the Matterhorn Protocol’s checkpoints", () => {
  const books = [bookOfEveryFeature(), ...sentenceLanguages.map(bookInLanguage), ...generatedBooks(10)];
  const failed = books.map((book) => [book.title, matterhorn(typesetter.write(book, true).pdf)]);
  expect(failed.filter(([, failures]) => failures!.length > 0)).toEqual([]);
});

test("what they forbid is found", () => {
  const { pdf } = typesetter.write(bookOfEveryFeature(), true);
  const objects = new PdfObjects(pdf);
  const root = objects.trailer.get("Root") as PdfRef;
  const catalog = objects.dictionary(root);
  catalog.delete("Lang");
  objects.change(root, catalog);
  const refs = Array.from({ length: objects.trailer.get("Size") as number }, (_, i) => new PdfRef(i));
  for (const ref of refs) {
    let value: PdfValue = null;
    try {
      value = objects.read(ref);
    } catch {
      // Numbers that no object has.
    }
    if (!(value instanceof Map) || !value.has("Contents") || !value.has("Rect")) continue;
    value.delete("Contents");
    objects.change(ref, value);
  }
  expect(matterhorn(objects.updated())).toEqual([
    "11-006 it has no natural language",
    "28-012 a link has no alternate description",
  ]);
});
