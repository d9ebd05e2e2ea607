import { structuresBesidePdfJs } from "@vennet/core/test/same-structure";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { expect, test } from "@jest/globals";
import { generatedBooks } from "../test/exports-to-damage.ts";
import { Typesetter } from "./typesetter.ts";

test("the structure of every page is the one that pdf.js, Mozilla's reader, tells of it", async () => {
  const typesetter = new Typesetter();
  for (const book of [bookOfEveryFeature(), ...generatedBooks(10)]) {
    const { own, pdfJs } = await structuresBesidePdfJs(typesetter.write(book, true).pdf);
    expect(own).toEqual(pdfJs);
    expect(JSON.stringify(own)).toContain('"role":"Link"');
  }
});
