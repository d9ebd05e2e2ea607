import { expect, test } from "@jest/globals";
import { writeEpub } from "../publish/formats/epub/write-epub.ts";
import { writeDocx } from "../publish/formats/docx/write-docx.ts";
import { writeMarkdown } from "../publish/formats/markdown/write-markdown.ts";
import { writeWebPage } from "../publish/formats/web/web-page.ts";
import { openExport } from "../proof/exported-folder.ts";
import { bookOfEveryFeature } from "../test/book-of-every-feature.ts";
import { bring } from "../test/brought.ts";
import type { ImportedManuscript } from "./import-manuscript.ts";

/** Words that are shown in some way, with all ways. */
function shown({ chapters }: Pick<ImportedManuscript, "chapters">): string[] {
  const found: string[] = [];
  for (const doc of chapters)
    doc.descendants(({ text, marks }) => {
      const names = marks
        .map(({ type }) => type.name)
        .filter((name) => !["link", "language", "strong"].includes(name));
      if (text && names.length > 0) found.push(`${text.trim()}: ${names.join(" ")}`);
    });
  return found;
}

test("words keep how they are shown, out and in again, in every format", async () => {
  const book = bookOfEveryFeature();
  const ways = shown({ chapters: book.chapters.map(({ doc }) => doc) });
  expect(ways).toEqual(
    expect.arrayContaining([
      "3: superscript",
      "2: subscript",
      "hourly: strike",
      "nightly: underline",
      "Orla: small_caps",
    ]),
  );
  for (const bytes of [
    openExport((await writeDocx(book, "walks.docx")).bytes).main,
    openExport(writeMarkdown(book, "walks.md").bytes).main,
    writeWebPage(book),
    writeEpub(book),
  ])
    expect(shown(await bring(bytes))).toEqual(expect.arrayContaining(ways));
});
