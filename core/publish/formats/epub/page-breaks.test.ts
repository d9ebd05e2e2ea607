import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { bookOf } from "../../../test/sample-book.ts";
import { findPageBreaks } from "./page-breaks.ts";
import { writeEpub } from "./write-epub.ts";

const book = bookOf(
  "# Tides\n\nThe oldest of the causeways, and the kindest, leaves the mainland.\n\nIt reaches the island of Aldry after two kilometres.[^n]\n\n# Ways\n\nFrom the car park at the chapel follow the white posts.\n\n[^n]: A note that stands nowhere in the running text.",
);
const textOf = (chapter: number): string => {
  let text = "";
  book.chapters[chapter]!.doc.descendants((node) => {
    if (node.type.name === "note") return false;
    text += node.text ?? "";
    return true;
  });
  return text;
};

test("pages begin where their first words stand, hyphens at line ends and chapters' numbers aside", () => {
  const { inChapters: breaks } = findPageBreaks(book, [
    { label: "iii", words: "1 Tides The old- est of the causeways, and the kindest" },
    { label: "4", words: "reaches the island of Aldry after two kilo- metres." },
    { label: "5", words: "2 Ways From the car park at the chapel follow" },
  ]);
  expect(breaks.get(0)!.map(({ label }) => label)).toEqual(["iii", "4"]);
  expect(textOf(0).slice(breaks.get(0)![1]!.offset)).toMatch(/^reaches the island/);
  expect(breaks.get(1)).toEqual([{ label: "5", offset: 0 }]);
});

test("pages before the text are told; one of which the text has nothing begins where the next does", () => {
  const { before, inChapters } = findPageBreaks(book, [
    { label: "1", words: "Contents" },
    { label: "2", words: "1 Tides The old- est of the causeways, and the kindest" },
    { label: "3", words: "Words that somebody has taken out since then, all of them" },
    // What a caption's number and a list's words stand around.
    { label: "4", words: "Figure 2 island of Back to the list" },
    { label: "5", words: "From the car park at the chapel follow the white" },
    { label: "6", words: "posts." },
  ]);
  expect(before).toEqual(["1"]);
  expect(inChapters.get(0)!.map(({ label, offset }) => [label, textOf(0).slice(offset, offset + 9)])).toEqual(
    [
      ["2", "TidesThe "],
      ["3", "island of"],
      ["4", "island of"],
    ],
  );
  expect(inChapters.get(1)!.map(({ label, offset }) => [label, textOf(1).slice(offset, offset + 5)])).toEqual(
    [
      ["5", "From "],
      ["6", "posts"],
    ],
  );
});

test("a page that begins within a link or a heading is marked before it, so that its name stays", () => {
  const linked = bookOf(
    "# The oldest of all the causeways is this one\n\nRead [the table of every tide of the year](https://a.example/) first.",
  );
  const starts = [
    { label: "7", words: "of all the causeways is this one Read the" },
    { label: "8", words: "of every tide of the year first." },
  ];
  const files = unzipSync(writeEpub(linked, { fonts: [], pages: { starts, source: "walks.pdf" } }));
  const chapter = strFromU8(files["EPUB/chapter-001.xhtml"]!);
  expect(chapter).toMatch(/<span [^>]*role="doc-pagebreak" id="page-7" title="7"><\/span><h1/);
  expect(chapter).toMatch(
    /<span [^>]*id="page-8" title="8"><\/span><a [^>]*>the table of every tide of the year<\/a>/,
  );
});
