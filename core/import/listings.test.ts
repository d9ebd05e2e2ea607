import { expect, test } from "@jest/globals";
import { writeDocx } from "../publish/formats/docx/write-docx.ts";
import { writeEpub } from "../publish/formats/epub/write-epub.ts";
import { writeMarkdown } from "../publish/formats/markdown/write-markdown.ts";
import { writeOdt } from "../publish/formats/odt/write-odt.ts";
import { writeWebPage } from "../publish/formats/web/web-page.ts";
import { bring } from "../test/brought.ts";
import { bookOf } from "../test/sample-book.ts";

const listing = "ebb:\n\twalk  the  posts\n\n\t\tlow\twater\n  end";

test.each([
  ["Markdown", (book) => writeMarkdown(book, "walks.md").bytes],
  ["an e-book", (book) => writeEpub(book)],
  ["a web page", (book) => writeWebPage(book)],
  ["a text document", async (book) => (await writeDocx(book, "walks.docx")).bytes],
  ["an OpenDocument text", (book) => writeOdt(book, "walks.odt").bytes],
] as [string, (book: ReturnType<typeof bookOf>) => Uint8Array | Promise<Uint8Array>][])(
  "a listing keeps its lines, blanks and tabs in %s and back",
  async (_, write) => {
    const book = bookOf(`# Walks\n\nSo:\n\n~~~\n${listing}\n~~~\n`);
    const { chapters } = await bring(await write(book));
    const found: string[] = [];
    for (const chapter of chapters)
      chapter.descendants(({ type, textContent }) => {
        if (type.name === "code_block") found.push(textContent);
      });
    expect(found).toEqual([listing]);
  },
);
