import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { defaultLooks } from "../../../manuscript/looks.ts";
import { schema } from "../../../manuscript/schema.ts";
import { bookOf } from "../../../test/sample-book.ts";
import { bookWith, chapter, text } from "../../../test/book-of-places.ts";
import { conformsTo, hasEarnedConformance } from "./conformance.ts";
import { writeEpub } from "./write-epub.ts";

const sound =
  "# Tides\n\nRead [the tide table of Aldry](https://tides.hesterley.example/).\n\n| Ford | Opens |\n| - | - |\n| Aldry | noon |";
const claims = (book: Parameters<typeof writeEpub>[0]): boolean =>
  strFromU8(unzipSync(writeEpub(book, { fonts: [], pages: null }))["EPUB/package.opf"]!).includes(
    `<meta property="dcterms:conformsTo">${conformsTo}</meta>`,
  );

test("a book in which nothing is found claims to conform", () => {
  expect(hasEarnedConformance(bookOf(sound))).toBe(true);
  expect(claims(bookOf(sound))).toBe(true);
});

// WCAG 2.2 SC 1.1.1, 1.3.1, 1.4.3, 2.4.2 and 2.4.4.
test.each([
  ["a link that says nothing", bookOf("# T\n\n[click here](https://a.example/)")],
  ["a table without heads", bookOf("# T\n\n<table><tr><td>a</td></tr></table>")],
  ["a head without words", bookOf("# T\n\n|  | b |\n| - | - |\n| 1 | 2 |")],
  ["a picture that is not there", bookOf("# T\n\n![](gone.png)")],
  [
    "a picture without words",
    bookWith([chapter("c", "T", text(schema.node("picture", { file: "dot", alt: "", width: 60 })))]),
  ],
  [
    "links in a colour too faint",
    bookOf(sound, { looks: { ...defaultLooks, web: { ...defaultLooks.web, colour: "#cccccc" } } }),
  ],
  ["a chapter without a title", bookWith([chapter("c", " ", text("Words"))])],
])("%s has not earned the claim", (_, book) => {
  expect(hasEarnedConformance(book)).toBe(false);
  expect(claims(book)).toBe(false);
});
