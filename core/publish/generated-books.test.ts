import { describe, expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import fc from "fast-check";
import type { Book } from "../manuscript/book.ts";
import type { ExportReading } from "../proof/exported-link.ts";
import { manuscriptLinks } from "../proof/manuscript-links.ts";
import { prove } from "../proof/prove.ts";
import { readDocx } from "./formats/docx/read-back.ts";
import { readEpub } from "./formats/epub/read-back.ts";
import { readMarkdown } from "./formats/markdown/read-back.ts";
import { readWebPage } from "./formats/web/read-back.ts";
import { generatedBook } from "../test/generated-book.ts";
import { readOdt } from "./formats/odt/read-back.ts";
import { writeOdt } from "./formats/odt/write-odt.ts";
import { writeDocx } from "./formats/docx/write-docx.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { emptyReading } from "../test/readings.ts";
import { asFolder } from "./export-folder.ts";
import { writeMarkdown } from "./formats/markdown/write-markdown.ts";
import { writeWebFolder } from "./formats/web/web-folder.ts";
import { writeWebPage } from "./formats/web/web-page.ts";

const books = fc.sample(generatedBook, { seed: 2026, numRuns: 50 });

test("fifty generated books have every kind of link between them", () => {
  const kinds = new Set(
    books.flatMap((book) => manuscriptLinks(book, emptyReading).map(({ expected }) => expected?.kind)),
  );
  expect([...kinds].sort()).toEqual(["address", "file", "place"]);
});

// EPUBCheck's TypeScript port, for the rules of EPUB 3.3.
test("fifty generated books pass EPUBCheck as e-books, without a warning", async () => {
  const told: unknown[] = [];
  for (const [i, book] of books.entries()) {
    const { messages } = await EpubCheck.validate(writeEpub(book));
    told.push(
      ...messages.filter(({ severity }) => severity !== "info" && severity !== "usage").map((m) => [i, m]),
    );
  }
  expect(told).toEqual([]);
});

const formats: [name: string, (book: Book) => Promise<ExportReading>][] = [
  ["e-books", async (book) => readEpub(writeEpub(book))],
  ["web pages", async (book) => readWebPage(asFolder(book, "walks.html", writeWebPage(book)).bytes)],
  ["folders of web pages", async (book) => readWebPage(writeWebFolder(book))],
  ["Markdown", async (book) => readMarkdown(writeMarkdown(book, "walks.md").bytes)],
  ["OpenDocument texts", async (book) => readOdt(writeOdt(book, "walks.odt").bytes)],
  ["text documents", async (book) => readDocx((await writeDocx(book, "walks.docx")).bytes)],
];

describe.each(formats)("fifty generated books as %s", (_name, exported) => {
  test("keep every link, and have none besides", async () => {
    const wrong: unknown[] = [];
    let intact = 0;
    for (const [i, book] of books.entries()) {
      const reading = await exported(book);
      const proof = prove(book, reading);
      intact += proof.intact;
      for (const { link, verdict, note } of [...proof.rows, ...proof.made.rows])
        // A cross-reference by number to what has none says so, in every format.
        if (verdict !== "intact" && !note?.includes("no number"))
          wrong.push([i, link.id, link.text, verdict, note]);
      for (const extra of proof.extra) wrong.push([i, "extra", extra]);
      for (const fault of proof.faults) wrong.push([i, "fault", fault]);
    }
    expect(wrong).toEqual([]);
    expect(intact).toBeGreaterThan(300);
  });
});
