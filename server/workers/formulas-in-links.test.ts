import { expect, test } from "@jest/globals";
import { prove } from "@vennet/core/proof/prove";
import { exportFormats, exportOptions, formats } from "@vennet/core/publish/formats/formats";
import { bookOfFormulas } from "@vennet/core/test/book-of-formulas";
import { textFonts } from "./fonts.ts";
import { Typesetter } from "./typesetter.ts";

test.each(exportFormats)("links on formulas are proven whole in %s", async (format) => {
  const book = bookOfFormulas();
  const { write, readBack, suffix } = formats[format];
  const { bytes } = await write(book, exportOptions({ format }), {
    name: `book.${suffix}`,
    lastPages: null,
    textFonts,
    setPages: (...given) => new Typesetter().write(...given),
  });
  const proof = prove(book, await readBack(bytes, () => {}));
  expect(
    proof.rows.filter(({ verdict }) => verdict !== "intact").map(({ link, note }) => [link.text, note]),
  ).toEqual([]);
  expect(proof).toMatchObject({ complete: true, total: 22 });
});
