import { expect, test } from "@jest/globals";
import { importManuscript } from "@vennet/core/import/import-manuscript";
import type { Book } from "@vennet/core/manuscript/book";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { kept, tool } from "../test/tools.ts";
import { Typesetter } from "./typesetter.ts";

async function bookOf(text: string): Promise<Book> {
  const file = { name: "causeways.md", bytes: new TextEncoder().encode(text) };
  const options = { fallbackTitle: "", baseAddress: null, pictureFor: () => null };
  const { chapters } = await importManuscript(file, options);
  return {
    ...bookOfEveryFeature(),
    chapters: chapters.map((doc, i) => ({ id: String(i), role: "chapter", doc })),
  };
}

/** The lines of a book's contents as poppler reads them, without the numbers of pages and what leads to them. */
async function contentsOf(text: string, name: string): Promise<string[]> {
  const path = kept(name, Buffer.from(new Typesetter().write(await bookOf(text), true).pdf));
  const { output } = await tool("pdftotext", "-f", "2", "-l", "3", "-layout", path, "-");
  return output.split("\n").map((line) => line.replace(/[\s.]+\d*\s*$/, "").trim());
}

// Where they did not, contents of eight pages moved what they tell of so often that the typesetter gave up.
test("the lines of the contents end where they do, whatever numbers pages have", async () => {
  let headings = "";
  for (let i = 0; i < 36; i++) headings += `## Stretch ${"ii ".repeat(13)}${"i".repeat(1 + i)}\n\n`;
  const few = await contentsOf(`# Stretches iii\n\n${headings}`, "few-pages.pdf");
  const many = await contentsOf(
    `# Stretches iii\n\n${"Low water.\n\n".repeat(5_000)}${headings}`,
    "many-pages.pdf",
  );
  expect(many).toEqual(few);
  expect(few.filter((line) => /^(Stretch|i+$)/.test(line)).length).toBeGreaterThan(2);
});

test("a heading that is a number alone is told in the contents", async () => {
  const book = await bookOf("# 1984\n\n[On](#7)\n\n## 7\n\nLow water.\n");
  const proof = prove(book, await readPdf(new Typesetter().write(book, true).pdf));
  expect([proof.faults, proof.rows.filter(({ verdict }) => verdict !== "intact")]).toEqual([[], []]);
});
