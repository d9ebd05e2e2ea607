import { expect, test } from "@jest/globals";
import { schema } from "../manuscript/schema.ts";
import { bookWith, chapter, noteMark, see, text } from "../test/book-of-places.ts";
import { foreseeChanges } from "./foresee.ts";
import { exportFormats, exportOptions } from "./formats/formats.ts";
import type { KnownBefore } from "./formats/format.ts";

const known: KnownBefore = {
  shapes: { has: (_, codePoint) => codePoint < 0x600 },
  hasPages: false,
  damaged: new Set(),
};
const book = bookWith([
  chapter(
    "c",
    "Gaps",
    text("Go on at ", see("r", "nowhere"), " before noon.", noteMark("gone")),
    text(schema.node("picture", { file: null, alt: "", source: "maps/sound.png" })),
    text("Now 潮 turns.", schema.node("picture", { file: "dot", alt: "" })),
  ),
]);
const foreseen = (options: Parameters<typeof exportOptions>[0]) =>
  foreseeChanges(book, exportOptions(options), known);

test.each(exportFormats)(
  "%s: gaps, missing pictures and what they say are told with their places",
  (format) => {
    const changes = foreseen({ format, accessible: false });
    const inText = changes.filter(({ at, code }) => at !== null && code !== "letter");
    expect(inText.map(({ code }) => code)).toEqual(["gap", "gap", "picture", "picture-alternative"]);
    const { doc } = book.chapters[0]!;
    expect(inText.map(({ at }) => doc.nodeAt(at!.from)!.type.name)).toEqual([
      "cross_reference",
      "note_reference",
      "picture",
      "picture",
    ]);
    expect(inText[0]!.message).toBe(
      "A cross-reference says only [?] near “Go on at   before noon.”. The place that it follows is gone.",
    );
    expect(inText[2]!.message).toContain("“sound.png” stands in its place");
  },
);

test("a damaged picture is told wherever it stands, as the format shows it", () => {
  const damaged = { ...known, damaged: new Set(["dot"]) };
  const told = (format: "pdf" | "epub"): string[] =>
    foreseeChanges(book, exportOptions({ format }), damaged)
      .filter(({ message }) => message.includes("damaged"))
      .map(({ message }) => message);
  expect(told("pdf")).toEqual([expect.stringContaining("its text alternative stands in its place")]);
  expect(told("epub")).toEqual([expect.stringContaining("readers’ programs may not show it")]);
});

test("a PDF tells letters without a shape where they stand, an e-book that it has no pages to tell", () => {
  const [letter] = foreseen({ format: "pdf" }).filter(({ code }) => code === "letter");
  const { from, to } = letter!.at!;
  expect(book.chapters[0]!.doc.textBetween(from, to)).toBe("潮");
  expect(foreseen({ format: "epub", pageList: true }).map(({ code }) => code)).toContain("page-list");
  expect(foreseen({ format: "epub", pageList: false }).map(({ code }) => code)).not.toContain("page-list");
});
