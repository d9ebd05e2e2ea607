import { describe, expect, test } from "@jest/globals";
import { indexOf } from "../manuscript/book.ts";
import { defaultConventions } from "../manuscript/conventions.ts";
import { bookWith, chapter, heading, note, noteMark, see, text } from "../test/book-of-places.ts";
import type { ReadEntry, ReadList } from "./exported-link.ts";
import { judgeLists, judgePageList } from "./judge-lists.ts";

const book = bookWith([
  chapter("walks", "Walks", text("Begin here."), heading("way", 1, "The way"), text("Go.")),
  chapter("inns", "Inns", text("Sleep.")),
]);
const entry = (id: string, words: string): ReadEntry => ({ words, targets: [id], landing: words });
const whole = [entry("walks", "Walks"), entry("way", "The way"), entry("inns", "Inns")];

function faults(entries: ReadEntry[], more: Partial<ReadList> = {}): string[] {
  const list = {
    name: "The list",
    levels: 2,
    isAsShown: false,
    hasCompanions: true,
    isOwn: true,
    entries,
    ...more,
  };
  return judgeLists(book, indexOf(book), [list], false).map(({ what }) => what);
}

describe("a list by which readers find the way", () => {
  test("has each chapter and heading in its order", () => {
    expect(faults(whole)).toEqual([]);
    expect(faults([whole[0]!, whole[2]!])).toEqual(["“The way” is not in it where it should be."]);
    expect(faults([whole[0]!, whole[2]!, whole[1]!])).not.toEqual([]);
    expect(faults([])).toHaveLength(3);
  });

  test("leads where it says", () => {
    expect(faults(whole.with(1, entry("inns", "The way")))).toEqual(["“The way” leads elsewhere."]);
    expect(faults(whole.with(1, { ...whole[1]!, landing: "Sleep." }))).toEqual([
      "“The way” leads elsewhere.",
    ]);
    expect(faults(whole.with(1, { ...whole[1]!, landing: null }))).toEqual(["“The way” leads elsewhere."]);
  });

  test("has nothing besides but what the book is called and its parts", () => {
    expect(faults([...whole, entry("x", "Elsewhere")])).toEqual(["“Elsewhere” is in it, and in no heading."]);
    expect(faults([...whole, entry("notes", "Notes")])).toEqual([]);
  });

  test("goes as deep as it should, and no deeper", () => {
    expect(faults([whole[0]!, whole[2]!], { levels: 1 })).toEqual([]);
  });
});

describe("a list of a PDF", () => {
  const withNotes = bookWith(
    [
      chapter("walks", "Walks", heading("way", 1, "Here ", see("r1", "walks")), text("Go.", noteMark("n1"))),
      chapter("inns", "Inns", text("Sleep."), note("n1", "Soundly.")),
    ],
    { conventions: { ...defaultConventions, notesAt: "book" } },
  );
  const listed = [
    entry("walks", "Walks 1"),
    { ...entry("way", "Here Walks 1"), landing: "Here Walks" },
    entry("inns", "Inns 2"),
    { words: "Notes 3", targets: [], landing: "Notes\n1 Soundly." },
  ];
  const faultsOf = (entries: ReadEntry[]): string[] => {
    const list = { name: "The list", levels: 2, isAsShown: false, hasCompanions: true, isOwn: true, entries };
    return judgeLists(withNotes, indexOf(withNotes), [list], true).map(({ what }) => what);
  };

  test("says a heading’s own words, whatever is shown of its references", () => {
    expect(faultsOf(listed)).toEqual([]);
    expect(faultsOf(listed.with(1, { ...listed[1]!, words: "Here 1" }))).toEqual([]);
    expect(faultsOf(listed.with(1, { ...listed[1]!, words: "Somewhere else 1" }))).toHaveLength(2);
  });

  test("has the notes that stand at the end of the book, and leads to them", () => {
    expect(faultsOf(listed.slice(0, 3))).toEqual(["“Notes” is not in it where it should be."]);
    expect(faultsOf(listed.with(3, { ...listed[3]!, targets: ["walks"], landing: "Walks" }))).toEqual([
      "“Notes” leads elsewhere.",
    ]);
  });
});

test("a list of pages has each page that begins, by its number", () => {
  const breaks = new Map([
    ["page-1", "1"],
    ["page-2", "2"],
  ]);
  expect(judgePageList(breaks, [entry("page-1", "1"), entry("page-2", "2")])).toEqual([]);
  expect(judgePageList(breaks, [entry("page-1", "1")])).toHaveLength(1);
  expect(judgePageList(breaks, [entry("page-2", "1"), entry("page-2", "2")])).toHaveLength(2);
});
