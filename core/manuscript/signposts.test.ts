import { describe, expect, test } from "@jest/globals";
import { anchor, bookOfPlaces, bookWith, chapter, heading, signposts, text } from "../test/book-of-places.ts";
import { indexOf } from "./book.ts";
import { hasOwnContents, nested, returnLinksOf, signpostsOf } from "./signposts.ts";
import { signpostAttrs, type SignpostList } from "./attributes.ts";

const book = bookOfPlaces();
const index = indexOf(book);
const entries = (more: Partial<SignpostList>, at = 1) =>
  signpostsOf(signpostAttrs(signposts({ id: "x", ...more })), index, at).map(
    ({ words, depth }) => "  ".repeat(depth) + words,
  );

describe("a signpost list has", () => {
  test("the contents of the book, to a depth", () => {
    expect(entries({ depth: 1 })).toEqual(["1 Walks", "2 Questions"]);
    expect(entries({ depth: 2 })).toEqual(["1 Walks", "  1.1 The way", "2 Questions", "  2.1 Answers"]);
  });

  test("the contents of a chapter or a section, without its own heading", () => {
    expect(entries({ scope: "chapter", depth: 1 })).toEqual(["2.1 Answers"]);
    expect(entries({ scope: "chapter", depth: 2 })).toEqual([
      "2.1 Answers",
      "  2.1.1 What about sand?",
      "  2.1.2 What about the sea?",
    ]);
    expect(entries({ scope: "section", section: "answers", depth: 1 })).toHaveLength(2);
    expect(entries({ scope: "section", section: "gone", depth: 1 })).toEqual([]);
  });

  test("the questions of a section: all headings of a level", () => {
    const questions = { of: "questions" as const, scope: "section" as const, section: "answers" };
    expect(entries({ ...questions, depth: 2 })).toEqual([
      "2.1.1 What about sand?",
      "2.1.2 What about the sea?",
    ]);
    expect(entries({ ...questions, depth: 3 })).toEqual([]);
  });

  test("tables, and anchors chosen by hand, in the order of the text and in readers' words", () => {
    expect(entries({ of: "tables" })).toEqual(["Table 1 How long it lies bare"]);
    expect(entries({ of: "figures" })).toEqual([]);
    const two = bookWith([
      chapter(
        "c",
        "C",
        text(anchor("b", "second in name"), "Aldry."),
        text(anchor("a", "first in name"), "Mell."),
      ),
    ]);
    const list = signpostAttrs(signposts({ id: "x", of: "anchors", anchors: ["a", "b", "gone"] }));
    expect(signpostsOf(list, indexOf(two), 0).map(({ words }) => words)).toEqual(["Aldry", "Mell"]);
  });
});

test("entries that stand deeper are nested under those above them", () => {
  const flat = [0, 1, 1, 0, 1, 2].map((depth, i) => ({ id: String(i), words: "", depth }));
  const shape = (branches: ReturnType<typeof nested>): unknown[] =>
    branches.map(({ id, inner }) => (inner.length > 0 ? [id, shape(inner)] : id));
  expect(shape(nested(flat))).toEqual([
    ["0", ["1", "2"]],
    ["3", [["4", ["5"]]]],
  ]);
});

describe("return links", () => {
  const after = (at: number) =>
    returnLinksOf(book.chapters[at]!.doc, at, index).map(({ at: position, list, words }) => {
      const before = book.chapters[at]!.doc.resolve(position).nodeBefore!;
      return [before.textContent || before.type.name, list, words];
    });

  test("stand after each section that the list lists, the innermost first; not where the list itself stands", () => {
    expect(after(0)).toEqual([["A note and again and .", "contents", "Back to what is where"]]);
    expect(after(1)).toEqual([
      ["It moves; see .", "asked", "Back to the questions"],
      ["signposts", "asked", "Back to the questions"],
      ["signposts", "contents", "Back to what is where"],
    ]);
  });

  test("follow the headings as these come and go", () => {
    const doc = book.chapters[1]!.doc;
    const at = doc.children.findIndex(({ type }) => type.name === "note");
    const content = [
      ...doc.children.slice(0, at),
      heading("new", 2, "And the wind?"),
      ...doc.children.slice(at),
    ];
    const docs = [book.chapters[0]!.doc, doc.type.create(null, content)];
    const grown = { ...book, chapters: docs.map((one, i) => ({ ...book.chapters[i]!, doc: one })) };
    expect(returnLinksOf(docs[1]!, 1, indexOf(grown)).filter(({ list }) => list === "asked")).toHaveLength(3);
  });

  test("there are none where no list asks for them", () => {
    const plain = bookWith([chapter("c", "C", signposts({ id: "l" }), heading("h", 1, "H"))]);
    expect(returnLinksOf(plain.chapters[0]!.doc, 0, indexOf(plain))).toEqual([]);
  });
});

test("a book with a contents list of its own needs none made", () => {
  expect(hasOwnContents(book)).toBe(true);
  expect(hasOwnContents(bookWith([chapter("c", "C", signposts({ id: "l", scope: "chapter" }))]))).toBe(false);
});
