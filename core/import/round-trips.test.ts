import { describe, expect, test } from "@jest/globals";
import { writeEpub } from "../publish/formats/epub/write-epub.ts";
import { writeDocx } from "../publish/formats/docx/write-docx.ts";
import { writeMarkdown } from "../publish/formats/markdown/write-markdown.ts";
import { writeWebPage } from "../publish/formats/web/web-page.ts";
import { writeWebFolder } from "../publish/formats/web/web-folder.ts";
import { asFolder } from "../publish/export-folder.ts";
import type { Book } from "../manuscript/book.ts";
import { bookOfEveryFeature } from "../test/book-of-every-feature.ts";
import { bring } from "../test/brought.ts";
import { spelledOut } from "../test/spelled-out.ts";

type Written = (book: Book) => Promise<Uint8Array>;

const formats: Record<string, Written> = {
  "a text document": async (book) => (await writeDocx(book, "walks.docx")).bytes,
  Markdown: async (book) => writeMarkdown(book, "walks.md").bytes,
  "a web page": async (book) => asFolder(book, "walks.html", writeWebPage(book)).bytes,
  "a folder of web pages": async (book) => writeWebFolder(book),
  "an e-book": async (book) => writeEpub(book),
};

/** What the table in docs/formats.md says that a format cannot hold, as lines that differ. */
const cannotHold: Record<string, RegExp> = {
  // Cells that go over several columns, blocks in them, and listings with links.
  Markdown: /^\s*(table_(header|cell)|paragraph|hard_break|code_block|"signal at)/,
};

describe.each(Object.entries(formats))("a book that comes back from %s", (name, write) => {
  test("is the same to the node: links, references, lists, places, notes, pictures with areas, files, numbers", async () => {
    const book = bookOfEveryFeature();
    const back = await bring(await write(book));
    const pictures = back.pictures.map(({ id }): [string, string] => [id, "dot.png"]);
    const files = back.companions.map(({ id, name: file }): [string, string] => [id, file]);
    const before = spelledOut(
      book.chapters.map(({ doc }) => doc),
      new Map([
        ["dot", "dot.png"],
        ["plan", "Plan №1.txt"],
      ]),
    );
    const after = spelledOut(back.chapters, new Map([...pictures, ...files]));
    const isHeld = (line: string): boolean => !cannotHold[name]?.test(line);
    expect(after.filter(isHeld)).toEqual(before.filter(isHeld));
    expect(back).toMatchObject({
      title: book.title,
      author: book.author,
      language: book.language,
      conventions: book.conventions,
      roles: book.chapters.map(({ role }) => role),
    });
    expect(back.leftOut).toEqual([]);
    const { intact, ...others } = back.arrival!.counts;
    expect(intact).toBeGreaterThan(40);
    expect(others).toEqual({ changed: 0, "left-out": 0, lost: 0, extra: 0 });
  });
});
