import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  anchor,
  bookWith,
  caption,
  chapter,
  heading,
  note,
  noteMark,
  table,
  text,
} from "../test/book-of-places.ts";
import { indexOf } from "./book.ts";
import { chapterRoles } from "./chapter-role.ts";
import { BookIndex, topOfBook } from "./book-index.ts";
import { placesOf } from "./outline.ts";
import { schema } from "./schema.ts";
import { assertConventions, defaultConventions, type Conventions } from "./conventions.ts";

const docs = [
  chapter(
    "c1",
    "Tides",
    heading("h1", 1, "Springs"),
    heading("h2", 2, "Low"),
    text(anchor("a1", "Unter — 干潮"), "Low water is at nine. Then it turns."),
    heading("h3", 1, "Neaps"),
    heading("h4", 3, "Deep down"),
    table("A"),
    caption("t1", "table", "First"),
    text("x", noteMark("n2"), noteMark("n1"), noteMark("n2")),
    note("n1", "Later."),
    note("n2", "First."),
    note("n3", "Alone."),
  ),
  chapter(
    "c2",
    "Ways",
    table("B"),
    caption("t2", "table", "Second"),
    text(noteMark("m1")),
    note("m1", "Own."),
  ),
];
const numbers = (conventions: Partial<Conventions>, ids: string[]) => {
  const index = indexOf(bookWith(docs, { conventions: { ...defaultConventions, ...conventions } }));
  return ids.map((id) => index.places.get(id)!.number);
};

describe("numbers", () => {
  test("of headings go as deep as the book says, and skip no level", () => {
    const headings = ["c1", "h1", "h2", "h3", "h4", "c2"];
    expect(numbers({ headings: 0 }, headings)).toEqual([null, null, null, null, null, null]);
    expect(numbers({ headings: 1 }, headings)).toEqual(["1", null, null, null, null, "2"]);
    expect(numbers({ headings: 5 }, headings)).toEqual(["1", "1.1", "1.1.1", "1.2", "1.2.1", "2"]);
  });

  test("of captions and notes run through the book, or begin anew in each chapter", () => {
    expect(numbers({ tables: "book" }, ["t1", "t2"])).toEqual(["1", "2"]);
    expect(numbers({ tables: "chapter" }, ["t1", "t2"])).toEqual(["1.1", "2.1"]);
    expect(numbers({ tables: null }, ["t1", "t2"])).toEqual([null, null]);
    // In the order of their first references; one that nothing refers to comes last.
    expect(numbers({ notes: "chapter" }, ["n2", "n1", "n3", "m1"])).toEqual(["1", "2", "3", "1"]);
    expect(numbers({ notes: "book" }, ["n2", "n1", "n3", "m1"])).toEqual(["1", "2", "3", "4"]);
  });

  test("an anchor has that of the heading it stands under", () => {
    expect(numbers({ headings: 3 }, ["a1"])).toEqual(["1.1.1"]);
  });

  test("pages outside the reading order have none, and count no chapter", () => {
    const book = bookWith(docs, { conventions: { ...defaultConventions, headings: 2 } });
    book.chapters[0]!.role = "companion";
    const index = indexOf({ ...book, chapters: [...book.chapters].reverse() });
    expect(index.places.get("c1")!.number).toBeNull();
    expect(index.places.get("c2")!.number).toBe("1");
    expect(index.companions).toEqual(new Set([1]));
  });

  test("an unnumbered chapter has none, nor have its headings, and the next is counted as if it were not there", () => {
    const book = bookWith(docs, { conventions: { ...defaultConventions, headings: 2, tables: "chapter" } });
    book.chapters[0]!.role = "unnumbered";
    const index = indexOf(book);
    const ids = ["c1", "h1", "t1", "c2", "t2"];
    expect(ids.map((id) => index.places.get(id)!.number)).toEqual([null, null, "1", "1", "1.1"]);
    expect([index.roleOf(0), index.isInPart(0)]).toEqual(["unnumbered", false]);
  });
});

test("the top of the book is a place of every book; readers see an anchor's words, not its name", () => {
  const { places } = indexOf(bookWith(docs));
  expect(places.get(topOfBook)).toMatchObject({ chapter: -1, order: 0, words: "The Causeways" });
  expect(places.get("a1")).toMatchObject({ text: "Unter — 干潮", words: "Low water is at nine" });
});

test("what is counted again only where it may have changed is what counting all of it gives", () => {
  const role = fc.constantFrom(...chapterRoles);
  const by = fc.constantFrom("book" as const, "chapter" as const);
  const arrangement = fc.record({
    chapters: fc.array(fc.tuple(role, fc.nat({ max: docs.length - 1 })), { minLength: 1, maxLength: 5 }),
    conventions: fc
      .record({ headings: fc.nat({ max: 5 }), figures: by, tables: fc.option(by), notes: by })
      .map((some): Conventions => ({ ...defaultConventions, ...some })),
  });
  const known = docs.map((doc) => placesOf(doc));
  const book = { title: "Book", language: "en" };
  fc.assert(
    fc.property(arrangement, ({ chapters, conventions }) => {
      const again = chapters.map(([role, at]) => ({ role, places: known[at]! }));
      // Places of which nothing is known yet.
      const anew = again.map(({ role, places }) => ({ role, places: [...places] }));
      expect(new BookIndex(again, conventions, book).inOrder).toEqual(
        new BookIndex(anew, conventions, book).inOrder,
      );
    }),
    { numRuns: 300 },
  );
});

test("conventions from outside are checked", () => {
  expect(() => assertConventions(defaultConventions)).not.toThrow();
  for (const wrong of [
    null,
    { ...defaultConventions, headings: 6 },
    { ...defaultConventions, headings: 1.5 },
    { ...defaultConventions, figures: "page" },
    { ...defaultConventions, notes: null },
    { ...defaultConventions, notesAt: "margin" },
    { ...defaultConventions, returnWords: "  " },
  ])
    expect(() => assertConventions(wrong)).toThrow(RangeError);
});

test("titles are found by their chapters, and signpost lists among all places", () => {
  const list = schema.node("signposts", { id: "s1", of: "contents" });
  const { titles, lists } = indexOf(bookWith([...docs, chapter("c3", "Lists", list)]));
  expect([...titles].map(([at, { id }]) => [at, id])).toEqual([
    [-1, topOfBook],
    [0, "c1"],
    [1, "c2"],
    [2, "c3"],
  ]);
  expect(lists.map(({ id }) => id)).toEqual(["s1"]);
});
