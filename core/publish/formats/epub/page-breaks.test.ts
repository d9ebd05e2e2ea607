import { expect, test } from "@jest/globals";
import { bookOf } from "../../../test/sample-book.ts";
import { findPageBreaks } from "./page-breaks.ts";

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
  const breaks = findPageBreaks(book, [
    { label: "iii", words: "1 Tides The old- est of the causeways, and the kindest" },
    { label: "4", words: "reaches the island of Aldry after two kilo- metres." },
    { label: "5", words: "2 Ways From the car park at the chapel follow" },
  ]);
  expect(breaks.get(0)!.map(({ label }) => label)).toEqual(["iii", "4"]);
  expect(textOf(0).slice(breaks.get(0)![1]!.offset)).toMatch(/^reaches the island/);
  expect(breaks.get(1)).toEqual([{ label: "5", offset: 0 }]);
});

test("a page that begins in a note or in words that are gone has no break, and those after it are found", () => {
  const breaks = findPageBreaks(book, [
    { label: "1", words: "A note that stands nowhere in the running text." },
    { label: "2", words: "Words that somebody has taken out since then, all of them" },
    { label: "3", words: "From the car park at the chapel follow the white" },
    { label: "4", words: "short" },
  ]);
  expect([...breaks]).toEqual([[1, [{ label: "3", offset: textOf(1).indexOf("From") }]]]);
});
