import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import {
  readPagesOfFile,
  type PdfPagesRead,
  type ReadPagesElsewhere,
} from "@vennet/core/publish/formats/pdf/read-pages";
import { on } from "node:events";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { Worker } from "node:worker_threads";
import { epubAddresses, epubcheck, kept, popplerAddresses, qpdf, tool } from "../test/tools.ts";
import { readPagesInThread } from "./read-pages-in-thread.ts";
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

test("what a thread reads of its later pages is what is read of them here, and half by each is the whole", async () => {
  const { bytes } = await author.exported(bookId, "pdf");
  const there: ReadPagesElsewhere = async (file, range, unreachable, tell) => {
    const thread = new Worker(join(import.meta.dirname, "../dist/exports/pages-thread.js"));
    const here = await readPagesOfFile(file, range, unreachable, tell);
    // It is asked again for the next file.
    for (let turn = 0; turn < 2; turn++) {
      const told: number[] = [];
      thread.postMessage({ bytes: file, range, unreachable });
      for await (const [one] of on(thread, "message") as AsyncIterable<[number | PdfPagesRead]>) {
        if (typeof one !== "number") {
          expect(one).toEqual(here);
          break;
        }
        told.push(one);
      }
      expect(told).toEqual(here.pages.map((_, i) => i + 1));
    }
    await thread.terminate();
    return here;
  };
  const pages: number[] = [];
  const halves = await readPdf(bytes, (page) => pages.push(page), there);
  expect(halves).toEqual(await readPdf(bytes));
  expect(Math.max(...pages)).toBe(halves.pages);
});

test("where no thread can be begun, or it ends early, its pages are read here", async () => {
  const { bytes } = await author.exported(bookId, "pdf");
  const last = [{ first: 148, last: 150 }, new Map<number, string>(), () => undefined] as const;
  const told = jest.spyOn(process, "emitWarning").mockReturnValue();
  // Beside the sources there is no built thread, so that each ends as it begins.
  for (let turn = 0; turn < 2; turn++)
    expect(await readPagesInThread(bytes, ...last)).toEqual(await readPagesOfFile(bytes, ...last));
  const alone = expect.stringContaining("Pages are read in one thread");
  expect(told.mock.calls.map(([warning]) => warning)).toEqual([alone, alone]);
  told.mockRestore();
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
