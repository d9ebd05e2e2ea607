import { expect, test } from "@jest/globals";
import { schema } from "@vennet/core/manuscript/schema";
import { bookWith, chapter } from "@vennet/core/test/book-of-places";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { Typesetter } from "./typesetter.ts";

const linkTo = (words: string) => {
  const destination = { kind: "web", address: "https://tides.example/" };
  return schema.text(words, [schema.mark("link", { id: `l${words.charCodeAt(0)}`, destination })]);
};
const plain = (words: string) => schema.text(words);

test("a listing of a PDF has letters of one width, and its tabs reach to the stops of a line", async () => {
  const listing = schema.node("code_block", null, [
    linkTo("iiii"),
    plain("\n"),
    linkTo("MMMM"),
    plain("\n        "),
    linkTo("=>"),
    plain("\n\t"),
    linkTo("!="),
    plain("\nebb\t"),
    linkTo("--"),
  ]);
  const book = bookWith([chapter("c", "T", listing)]);
  const reading = await readPdf(new Typesetter().write(book, true).pdf);
  const boxes = new Map(
    reading.links.filter(({ apparatus }) => !apparatus).map(({ text, boxes: [box] }) => [text, box!]),
  );
  const width = (words: string): number => boxes.get(words)![2] - boxes.get(words)![0];
  expect(width("iiii")).toBeCloseTo(width("MMMM"), 1);
  expect(width("=>")).toBeCloseTo(width("MMMM") / 2, 1);
  const left = (words: string): number => boxes.get(words)![0];
  expect(left("=>") - left("MMMM")).toBeCloseTo(2 * width("MMMM"), 1);
  expect(left("!=")).toBeCloseTo(left("=>"), 1);
  expect(left("--")).toBeCloseTo(left("=>"), 1);
  expect(prove(book, reading).complete).toBe(true);
});
