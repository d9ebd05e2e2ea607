import { expect, test } from "@jest/globals";
import { readHref } from "../destination/destination.ts";
import { kindOf } from "../destination/kinds/kinds.ts";
import { uriString, writeValue } from "../pdf/pdf-values.ts";
import type { Book } from "../manuscript/book.ts";
import type { ExportReading } from "../proof/exported-link.ts";
import { prove } from "../proof/prove.ts";
import { bookOf } from "../test/sample-book.ts";
import { readDocx } from "./formats/docx/read-back.ts";
import { writeDocx } from "./formats/docx/write-docx.ts";
import { readEpub } from "./formats/epub/read-back.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { readMarkdown } from "./formats/markdown/read-back.ts";
import { writeMarkdown } from "./formats/markdown/write-markdown.ts";
import { readOdt } from "./formats/odt/read-back.ts";
import { writeOdt } from "./formats/odt/write-odt.ts";
import { wordsAndHost } from "./formats/pdf/link-name.ts";
import { readWebPage } from "./formats/web/read-back.ts";
import { writeWebPage } from "./formats/web/web-page.ts";

// A percent sign that no two digits follow is none of an encoding (RFC 3986, 2.1); manuscripts have such addresses.
const markdown = `# Tides

Of [ferries](%url-of-ferries;), a [page](fifty%.html), a [spot](huts.html#100%), a [file](huts%zz.pdf),
the [office](mailto:%zz@tides.example) and the [web](https://tides.example/%zz?all=100%#50%).
`;

test.each<[string, (book: Book) => ExportReading | Promise<ExportReading>]>([
  ["e-book", (book) => readEpub(writeEpub(book))],
  ["web page", (book) => readWebPage(writeWebPage(book))],
  ["DOCX", async (book) => readDocx((await writeDocx(book, "walks.docx")).bytes)],
  ["ODT", (book) => readOdt(writeOdt(book, "walks.odt").bytes)],
  ["Markdown", (book) => readMarkdown(writeMarkdown(book, "walks.md").bytes)],
])("addresses with signs that are no encoding go out to %s and are read back", async (to, exported) => {
  const book = bookOf(markdown);
  const { rows, extra } = prove(book, await exported(book));
  expect(rows.map(({ link }) => link.text)).toEqual(["ferries", "page", "spot", "file", "office", "web"]);
  // Only Markdown takes along what leads to a file beside the manuscript; others tell that it is missing.
  const beside = to === "Markdown" ? "intact" : "missing";
  expect(rows.map(({ verdict }) => verdict)).toEqual([...Array<string>(4).fill(beside), "intact", "intact"]);
  expect(extra).toEqual([]);
});

test("and are told to screen readers in a PDF", () => {
  expect(wordsAndHost("Ask them", "mailto:%zz@tides.example")).toBe("Ask them (%zz@tides.example)");
});

// RFC 6068, 2: a mailto URI is of ASCII, and its blanks are %20.
test("emails with other letters and blanks go out in ASCII, as a PDF has them", () => {
  const destination = readHref("mailto:fähre@tides.example?subject=Flut um 7", null);
  const way = kindOf(destination).outside(destination);
  const address = "mailto:f%C3%A4hre@tides.example?subject=Flut%20um%207";
  expect(way).toEqual({ kind: "address", address });
  expect(writeValue(uriString(address))).toBe(`(${address})`);
  const book = bookOf("Ask [them](<mailto:fähre@tides.example?subject=Flut um 7>).");
  expect(prove(book, readEpub(writeEpub(book))).complete).toBe(true);
});
