import { expect, test } from "@jest/globals";
import { indexOf } from "../manuscript/book.ts";
import { schema } from "../manuscript/schema.ts";
import { bookWith, chapter, text } from "../test/book-of-places.ts";
import { landingWords, landsRight } from "./landing.ts";

test("words are landed on where they begin on the first line", () => {
  expect(landsRight("Low water", "2. Low water\nGo now.", true)).toBe(true);
  expect(landsRight("Low water", "High water\nLow water", true)).toBe(false);
  expect(landsRight("Low water", "", true)).toBe(false);
  expect(landsRight(null, "whatever", true)).toBe(true);
});

test("words that begin on a page's last line go on overleaf", () => {
  expect(landsRight("by here and there", "Table 2 Here at the quay, by\n2", true)).toBe(true);
  expect(landsRight("by here and there", "Table 2 Here at the quay, so\n2", true)).toBe(false);
  // What begins below the line is not landed on, and one letter says nothing.
  expect(landsRight("by here and there", "Table 2\nHere at the quay, by", true)).toBe(false);
  expect(landsRight("by here", "Table 2 b", true)).toBe(false);
  // Nothing goes on overleaf where there are no pages.
  expect(landsRight("by here and there", "Table 2 Here at the quay, by", false)).toBe(false);
});

test("the number of a note, which no word follows, is landed on by its digits", () => {
  expect(landsRight("[12]", "12", false)).toBe(true);
  expect(landsRight("(4).", "4", false)).toBe(true);
  expect(landsRight("[12]", "13", false)).toBe(false);
  expect(landsRight("[12]", "High water\n12", false)).toBe(false);
  expect(landsRight("[1]", "12", false)).toBe(false);
  // On pages it may be alone on the next line.
  expect(landsRight("[12]", "as the tables say,\n[12] The huts", true)).toBe(true);
  expect(landsRight("[12]", "as the tables say. The huts", true)).toBe(false);
});

test("words behind a number that ends a line are landed on with it", () => {
  expect(landsRight("63 library names", "They both take arguments 63\nlibrary names and more", true)).toBe(
    true,
  );
  expect(landsRight("63 library names", "They both take arguments\n63 library names", true)).toBe(false);
  expect(landsRight("library names", "They both take arguments\nlibrary names", true)).toBe(false);
});

test.each<[where: string, before: (string | "picture")[], wanted: string | null]>([
  ["behind a word", ["See the border"], "der"],
  ["behind a word and signs", ["See the border (all)."], "all"],
  ["behind a letter", ["See the border (p.\u00a0"], "p"],
  ["behind a number", ["See part 12"], "12"],
  ["behind a picture on the line of a word", ["See the border (p. ", "picture", ")"], null],
  ["behind a picture alone", ["picture"], null],
])("in pages an anchor %s at a paragraph's end is proven by what its line ends with", (_, before, wanted) => {
  const inlines = before.map((one) =>
    one === "picture" ? schema.node("picture", { file: "dot", alt: "[*]" }) : schema.text(one),
  );
  const anchor = schema.node("anchor", { id: "spot", name: "spot" });
  const book = bookWith([chapter("c1", "Tides", text(...inlines, anchor, "."))]);
  const place = indexOf(book).places.get("spot")!;
  expect(landingWords(place, book.chapters[0]!.doc, true)).toBe(wanted);
});

test("in pages an anchor before a word's last letter is proven by the whole word", () => {
  const anchor = (id: string) => schema.node("anchor", { id, name: id });
  const words = text(
    schema.text("Ask 12"),
    anchor("a"),
    schema.text("A"),
    anchor("b"),
    schema.text(" b"),
    anchor("c"),
    schema.text("c"),
  );
  const book = bookWith([chapter("c1", "Tides", words)]);
  const { places } = indexOf(book);
  const landing = (id: string, inPages: boolean) =>
    landingWords(places.get(id)!, book.chapters[0]!.doc, inPages);
  expect([landing("a", true), landing("b", true), landing("c", true), landing("c", false)]).toEqual([
    "A bc",
    "bc",
    "bc",
    "c",
  ]);
});

test.each<[what: string, display: boolean, after: string, wanted: string | null]>([
  ["with words behind it", false, " is the height", "is the height"],
  ["with a full stop behind it", false, ".", null],
  ["that is set apart", true, " is the height", null],
])(
  "an anchor before a formula %s is proven by the words that are read there",
  (_, display, after, wanted) => {
    const math = { name: "math", children: [{ name: "mi", children: ["h"] }] };
    const formula = schema.node("formula", { math, display });
    const anchor = schema.node("anchor", { id: "spot", name: "spot" });
    const inlines = [schema.text("Told as"), anchor, schema.text(" "), formula, schema.text(after)];
    const book = bookWith([chapter("c1", "Tides", text(...inlines))]);
    const place = indexOf(book).places.get("spot")!;
    for (const inPages of [true, false])
      expect(landingWords(place, book.chapters[0]!.doc, inPages)).toBe(wanted);
  },
);
