import { expect, test } from "@jest/globals";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { schema } from "@vennet/core/manuscript/schema";
import { bookWith, chapter, text } from "@vennet/core/test/book-of-places";
import { redDot } from "@vennet/core/test/red-dot";
import { textWidth } from "@vennet/core/manuscript/page-layout";
import { Typesetter } from "./typesetter.ts";

test("a picture within a line is as wide as its author gave it, and so is its link", async () => {
  const linked = (width: number | null) => {
    const destination = { kind: "web", address: `https://a.example/${width}` };
    const mark = schema.mark("link", { id: `l${width}`, destination });
    return schema.node("picture", { file: "dot", alt: "a dot", width }, undefined, [mark]);
  };
  const book = bookWith(
    [chapter("c", "T", ...[null, 20, 60].map((width) => text("before ", linked(width), " after")))],
    { pictures: [{ id: "dot", mediaType: "image/png", bytes: redDot }] },
  );
  const reading = await readPdf(new Typesetter().write(book, true).pdf);
  const widths = reading.links
    .filter(({ apparatus }) => !apparatus)
    .map(({ boxes: [box] }) => box![2] - box![0]);
  // CSS pixels, of which 96 are an inch, to points, of which 72 are.
  const whole = textWidth(book.layout) * 0.75;
  expect(widths[0]).toBeLessThan(20);
  expect(widths[1]).toBeCloseTo(whole * 0.2, 0);
  expect(widths[2]).toBeCloseTo(whole * 0.6, 0);
  expect(prove(book, reading).complete).toBe(true);
});
