import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import type { Book } from "@vennet/core/manuscript/book";
import { schema } from "@vennet/core/manuscript/schema";
import { drawnBoxes } from "@vennet/core/pdf/drawn-boxes";
import { openPdf, OPS } from "@vennet/core/pdf/pdf-js";
import { anchor, bookWith, chapter, linkTo, text } from "@vennet/core/test/book-of-places";
import { redDot } from "@vennet/core/test/red-dot";
import { textWidth } from "@vennet/core/manuscript/page-layout";
import { Typesetter } from "./typesetter.ts";

const typesetter = new Typesetter();
// CSS pixels, of which 96 are an inch, to points, of which 72 are.
const ofPixel = 0.75;
/** 1,200 by 640 pixels. */
const path = readFileSync(new URL("../../demo/manuscript/pictures/monks-path.png", import.meta.url));
const pictures: Book["pictures"] = [
  { id: "dot", mediaType: "image/png", bytes: redDot },
  { id: "path", mediaType: "image/png", bytes: path },
];
const shown = (file: string): Node => schema.node("picture", { file, alt: `the ${file}`, width: null });
const lineEnd = schema.node("hard_break");
const plan = anchor("plan");

/** The pictures on the pages of a book's PDF: left, lower, right and upper edge, in points. */
async function drawnIn(book: Book): Promise<(readonly number[])[]> {
  const { pdf } = typesetter.write(book, true);
  expect(prove(book, await readPdf(pdf)).complete).toBe(true);
  const opened = openPdf(pdf);
  const document = await opened.promise;
  const boxes: (readonly number[])[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    const page = await document.getPage(number);
    boxes.push(...drawnBoxes(await page.getOperatorList({ intent: "print" }), OPS).pictures);
  }
  await opened.destroy();
  return boxes;
}

const sizeOf = ([left = 0, low = 0, right = 0, high = 0]: readonly number[]): [
  width: number,
  height: number,
] => [right - left, high - low];

test("a picture within a line is as wide as its author gave it, and so is its link", async () => {
  const linked = (width: number | null) => {
    const destination = { kind: "web", address: `https://a.example/${width}` };
    const mark = schema.mark("link", { id: `l${width}`, destination });
    return schema.node("picture", { file: "dot", alt: "a dot", width }, undefined, [mark]);
  };
  const book = bookWith(
    [chapter("c", "T", ...[null, 20, 60].map((width) => text("before ", linked(width), " after")))],
    { pictures },
  );
  const reading = await readPdf(typesetter.write(book, true).pdf);
  const widths = reading.links
    .filter(({ apparatus }) => !apparatus)
    .map(({ boxes: [box] }) => box![2] - box![0]);
  const whole = textWidth(book.layout) * ofPixel;
  expect(widths[0]).toBeLessThan(20);
  expect(widths[1]).toBeCloseTo(whole * 0.2, 0);
  expect(widths[2]).toBeCloseTo(whole * 0.6, 0);
  expect(prove(book, reading).complete).toBe(true);
});

test.each<[where: string, content: (string | Node)[]]>([
  ["alone between ends of lines", ["before", lineEnd, shown("path"), lineEnd, "after"]],
  ["alone at the beginning", [shown("path"), lineEnd, "after"]],
  ["among words, where it is large", ["before ", shown("path"), " after"]],
])("a picture %s is as wide as the text", async (_, content) => {
  const book = bookWith([chapter("c", "T", text(...content))], { pictures });
  const [width] = sizeOf((await drawnIn(book))[0]!);
  expect(width).toBeCloseTo(textWidth(book.layout) * ofPixel, 0);
});

test("a small picture among words is as it is, in a cell as high as the line", async () => {
  const words = text("before ", shown("dot"), " after");
  const cells = schema.node("table", null, [
    schema.node("table_row", null, [schema.node("table_cell", null, [words])]),
  ]);
  const book = bookWith([chapter("c", "T", words, cells)], { pictures });
  const [among, inCell] = (await drawnIn(book)).map((box) => sizeOf(box)[1]);
  expect(among).toBeCloseTo(10 * ofPixel, 1);
  expect(inCell).toBeCloseTo(1.2 * book.layout.fontSize, 1);
});

test("a large picture and words in one link are its area, and no more", async () => {
  const mark = schema.mark("link", { id: "l", destination: { kind: "web", address: "https://a.example/" } });
  const content = [shown("path").mark([mark]), schema.text(" the path", [mark])];
  const book = bookWith([chapter("c", "T", text("before ", ...content, " after"))], { pictures });
  expect(sizeOf((await drawnIn(book))[0]!)[0]).toBeGreaterThan(200);
});

test("no picture is higher than a page", async () => {
  const book = bookWith(
    [chapter("c", "T", text("before"), text(shown("path")), text("a ", shown("path"), " b"))],
    {
      pictures,
    },
  );
  const layout = { ...book.layout, trim: "own" as const, height: 90 };
  const boxes = await drawnIn({ ...book, layout });
  expect(boxes).toHaveLength(2);
  const most = ((layout.height - layout.top - layout.bottom) * 72) / 25.4;
  for (const box of boxes) expect(sizeOf(box)[1]).toBeLessThan(most);
});

test.each<[where: string, content: (string | Node)[]]>([
  ["in their line", ["before", lineEnd, plan, shown("path"), lineEnd, "The path"]],
  ["before the end of the line above", ["before", plan, " ", lineEnd, shown("path"), lineEnd, "The path"]],
  ["where a paragraph begins", [plan, shown("path"), lineEnd, "The path"]],
])("whoever is led to a picture by an anchor %s sees all of it", async (_, content) => {
  const book = bookWith([chapter("c", "T", text(linkTo("l", "plan", "the plan")), text(...content))], {
    pictures,
  });
  const [box] = await drawnIn(book);
  const opened = openPdf(typesetter.write(book, true).pdf);
  const [, , , y] = (await (await opened.promise).getDestination("plan")) as [
    unknown,
    unknown,
    number,
    number,
  ];
  await opened.destroy();
  expect(y).toBeGreaterThan(box![3]!);
  expect(y).toBeLessThan(box![3]! + 4);
});
