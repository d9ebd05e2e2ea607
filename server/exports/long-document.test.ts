import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { epubAddresses, epubcheck, kept, popplerAddresses, qpdf, tool } from "../test/tools.ts";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

// The list of changes of rxjs, an npm package on which the server rests: not written by this project.
const file = join(dirname(createRequire(import.meta.url).resolve("rxjs/package.json")), "CHANGELOG.md");
const markdown = readFileSync(file, "utf8");
const baseAddress = "https://docs.example/rxjs/";

let server: TestServer;
let author: Client;
let bookId: string;
let total: number;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  const { body } = await author.bringIn(markdown, { baseAddress });
  bookId = body.book.id;
  total = body.book.links;
});
afterAll(() => server.close());

const isWeb = ({ destination }: { destination: string }): boolean => !destination.startsWith("#");

test("a long document becomes a PDF with every link and every word in its order, as poppler and qpdf see it", async () => {
  const written = markdown.replace(/^```[\s\S]*?^```/gm, "").match(/\]\((?!\s)[^)\s]+/g)!.length;
  expect(total).toBeGreaterThanOrEqual(written);
  const { proof, bytes } = await author.exported(bookId, "pdf");
  expect(proof).toMatchObject({ complete: true, intact: total, total, extraLinks: [] });
  expect(proof.pages).toBeGreaterThanOrEqual(150);
  const path = kept("long.pdf", bytes);
  expect(await qpdf(path)).toContain("No syntax or stream encoding errors found");
  const web = proof.rows.filter(isWeb);
  const found = web.reduce((sum: number, row: any) => sum + row.found.length, 0);
  expect(await popplerAddresses(path)).toHaveLength(found);

  // Every page from the first chapter's on, each without its number; a hyphen at a line's end is no letter.
  const listed = (await author.call<{ id: string }[]>("GET", `/books/${bookId}/chapters`)).body;
  const chapters = await Promise.all(
    listed.map(async ({ id }) =>
      readChapter((await author.call<any>("GET", `/books/${bookId}/chapters/${id}`)).body.document),
    ),
  );
  const title = chapters[0]!.firstChild!.attrs["id"] as string;
  const { output: destinations } = await tool("pdfinfo", "-dests", path);
  const first = new RegExp(`^\\s*(\\d+) .*"${title}"`, "m").exec(destinations)![1]!;
  const { output: set } = await tool("pdftotext", "-raw", "-f", first, path, "-");
  const inPdf = set
    .split("\f")
    .map((page) => page.replace(/\n\s*\d+\s*$/, ""))
    .join("\n");
  const inManuscript = chapters.map((doc) => doc.textBetween(0, doc.content.size, "\n", "\n")).join("\n");
  expect(firstDifference(signsOf(inPdf), signsOf(inManuscript))).toBeNull();
});

test("and an e-book with the same links, which EPUBCheck finds no fault in", async () => {
  const { proof, bytes } = await author.exported(bookId, "epub");
  expect(proof).toMatchObject({ complete: true, intact: total, total, extraLinks: [] });
  const addresses = proof.rows.filter(isWeb).map((row: any) => row.destination);
  expect(epubAddresses(bytes).sort()).toEqual(addresses.sort());
  expect((await epubcheck(kept("long.epub", bytes))).output).toContain("No errors or warnings");
});

/** Where two texts part, shown in both; null where they are the same. */
function firstDifference(one: string, other: string): { in: string; and: string } | null {
  if (one === other) return null;
  let at = 0;
  while (one[at] === other[at]) at++;
  return { in: one.slice(at - 40, at + 40), and: other.slice(at - 40, at + 40) };
}

/** The letters and digits of a text, one after the other, however it is broken into lines. */
function signsOf(text: string): string {
  return text.normalize("NFKC").replace(/[^\p{L}\p{N}]+/gu, "");
}
