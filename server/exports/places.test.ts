import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import { bookOfManyPlaces, bookOfOddPlaces, bookOfPlaces } from "@vennet/core/test/book-of-places";
import type { Book } from "@vennet/core/manuscript/book";
import { getDocument, type PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { unzipSync } from "fflate";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";
import { epubcheck, kept, qpdf, tool } from "../test/tools.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

const write = (book: Book, change: Record<string, unknown> = {}): Promise<string> =>
  author.write(
    book.chapters.map(({ doc }) => writeChapter(doc)),
    { conventions: book.conventions, ...change },
  );

async function withPdf<T>(bytes: Buffer, work: (document: PDFDocumentProxy) => Promise<T>): Promise<T> {
  const task = getDocument({ data: new Uint8Array(bytes), useSystemFonts: false });
  try {
    return await work(await task.promise);
  } finally {
    await task.destroy();
  }
}

interface Line {
  baseline: number;
  text: string;
}

/** The lines of a page from top to bottom, by their baselines, as pdf.js reads them. */
async function linesOf(document: PDFDocumentProxy, index: number): Promise<Line[]> {
  const { items } = await (await document.getPage(index + 1)).getTextContent();
  const lines: Line[] = [];
  for (const item of items) {
    if (!("str" in item) || item.str === "") continue;
    const baseline = item.transform[5] as number;
    const line = lines.find((one) => Math.abs(one.baseline - baseline) < 4);
    if (line) line.text += item.str;
    else lines.push({ baseline, text: item.str });
  }
  return lines.sort((a, b) => b.baseline - a.baseline);
}

const linesKept = new WeakMap<PDFDocumentProxy, Map<number, Promise<Line[]>>>();

/** The lines of a page, read once for each document. */
function keptLines(document: PDFDocumentProxy, index: number): Promise<Line[]> {
  const pages = linesKept.get(document) ?? new Map<number, Promise<Line[]>>();
  linesKept.set(document, pages);
  const lines = pages.get(index) ?? linesOf(document, index);
  pages.set(index, lines);
  return lines;
}

/** The page and the line on which a named destination lands: the first whose baseline lies below its top. */
async function landing(document: PDFDocumentProxy, name: string): Promise<{ page: number; line: string }> {
  const destination = (await document.getDestination(name)) as [object, { name: string }, number, number];
  expect(destination[1].name).toBe("XYZ");
  const page = await document.getPageIndex(destination[0] as never);
  const lines = await keptLines(document, page);
  return { page, line: lines.find(({ baseline }) => baseline < destination[3])?.text ?? "" };
}

test("each of 200 places of a PDF is landed on to the very line, read by pdf.js and poppler", async () => {
  const { book, places } = bookOfManyPlaces(200);
  const id = await write(book);
  const { proof, bytes } = await author.exported(id, "pdf");
  expect(proof).toMatchObject({ complete: true, intact: 200, total: 200, extra: 0 });
  const path = kept("places.pdf", bytes);
  expect(await qpdf(path)).toContain("No syntax or stream encoding errors found");
  const pages = await withPdf(bytes, async (document) => {
    const missed: string[] = [];
    const found = new Map<string, number>();
    for (const { id: name, word } of places) {
      const { page, line } = await landing(document, name);
      found.set(name, page + 1);
      if (!new RegExp(`${word}(?!\\d)`).test(line)) missed.push(`${name}: ${word} is not in “${line}”`);
    }
    expect(missed).toEqual([]);
    return found;
  });
  const { output } = await tool("pdfinfo", "-dests", path);
  const poppler = new Map(
    [...output.matchAll(/^\s*(\d+) \[[^\]]*\] "([^"]+)"/gm)].map(([, page, name]) => [name!, Number(page)]),
  );
  for (const [name, page] of pages) expect([name, poppler.get(name)]).toEqual([name, page]);
  // The list of places tells the number that is printed on the page: the title page has none.
  const listed = (await author.call<any>("GET", `/books/${id}/places`)).body as {
    id: string;
    page: string;
  }[];
  for (const { id: name } of places)
    expect([name, listed.find((one) => one.id === name)!.page]).toEqual([name, String(pages.get(name)! - 1)]);
});

describe.each(["page", "chapter", "book"] as const)("with notes at the end of the %s", (notesAt) => {
  test("both ways of every note, signposts, return links and cross-references are in all three exports", async () => {
    const book = bookOfPlaces();
    const id = await write({ ...book, conventions: { ...book.conventions, notesAt } });
    for (const format of ["pdf", "epub", "web"] as const) {
      const { proof, bytes } = await author.exported(id, format);
      const wrong = proof.rows.filter((row: any) => row.verdict !== "intact");
      expect([format, wrong.map((row: any) => row.note)]).toEqual([
        format,
        ["The place that it follows is gone."],
      ]);
      // In a PDF the numbers of notes at the foot of a page are the typesetter's own links.
      const made = format === "pdf" && notesAt === "page" ? 16 : 20;
      expect(proof).toMatchObject({ intact: 8, total: 9, extra: 0, made, madeWrong: 0 });
      if (format === "epub")
        expect((await epubcheck(kept(`notes-${notesAt}.epub`, bytes))).output).toContain(
          "No errors or warnings",
        );
      if (format !== "pdf") continue;
      expect(await qpdf(kept(`notes-${notesAt}.pdf`, bytes))).toContain("No syntax");
      await withPdf(bytes, async (document) => {
        expect((await landing(document, "clock")).line).toContain("Sound time");
        expect((await landing(document, "ref-clock-2")).line).toContain("and again");
        expect((await landing(document, "bare")).line).toContain("Table 1");
        expect((await landing(document, "contents")).line).toContain("What is where");
        const { page } = await landing(document, "clock");
        expect(page).toBe(notesAt === "book" ? 3 : 1);
        // ISO 14289-1, 7.18.5: what a link is told as besides its words.
        const annotations = await (await document.getPage(page + 1)).getAnnotations();
        const spoken = annotations.map(({ contentsObj }) => contentsObj?.str);
        expect(spoken).toEqual(expect.arrayContaining(["Back to the text 1", "Back to the text 2"]));
      });
    }
  });
});

test.each(["page", "chapter", "book"] as const)(
  "places and notes in headings, quotes, lists and captions are proven in a PDF too, with notes at the end of the %s",
  async (notesAt) => {
    const book = bookOfOddPlaces();
    const id = await write(book, { conventions: { ...book.conventions, headings: 4, notesAt } });
    const { proof, bytes } = await author.exported(id, "pdf", { addresses: "notes" });
    expect(proof).toMatchObject({
      complete: true,
      intact: 10,
      total: 10,
      made: notesAt === "page" ? 10 : 13,
    });
    expect(await qpdf(kept(`odd-${notesAt}.pdf`, bytes))).toContain("No syntax");
  },
);

// Common practice: when the target moves to another page, the number in the text follows.
test("a page number in the text is that of the page on which its target falls, also after edits", async () => {
  const book = bookOfPlaces();
  const id = await write(book);
  const printed = async () => {
    const { bytes } = await author.exported(id, "pdf");
    return withPdf(bytes, async (document) => {
      const { page } = await landing(document, "sand");
      const [, said] = /See page (\d+)/.exec(
        (await linesOf(document, 1)).map(({ text }) => text).join("\n"),
      )!;
      const labels = await document.getPageLabels();
      return [said, labels![page]];
    });
  };
  expect(await printed()).toEqual(["2", "2"]);
  const [, second] = (await author.call<any>("GET", `/books/${id}/chapters`)).body;
  const chapter = (await author.call<any>("GET", `/books/${id}/chapters/${second.id}`)).body;
  const filler = {
    type: "paragraph",
    content: [{ type: "text", text: "The tide waits for nobody. ".repeat(160) }],
  };
  chapter.document.content.splice(2, 0, filler, filler);
  await author.call("PUT", `/books/${id}/chapters/${second.id}`, {
    revision: chapter.revision,
    document: chapter.document,
  });
  const [said, label] = await printed();
  expect(said).toBe(label);
  expect(Number(said)).toBeGreaterThan(3);
});

describe("for print", () => {
  const markdown =
    "# Ways\n\nSee [the office](https://tides.example/today) and [its notes](https://tides.example/notes).[^1]\n\n[^1]: Kept.";
  const linesWith = async (addresses: string) => {
    const { body } = await author.bringIn(markdown);
    const { proof, bytes } = await author.exported(body.book.id, "pdf", { addresses });
    expect(proof).toMatchObject({ complete: true, total: 2, options: { addresses } });
    return withPdf(bytes, async (document) => {
      const pages = [];
      for (let i = 0; i < document.numPages; i++)
        pages.push((await linesOf(document, i)).map(({ text }) => text.replace(/\s/g, "")));
      return pages;
    });
  };

  test("addresses are written out in notes, beside the author's own", async () => {
    const lines = (await linesWith("notes")).flat();
    expect(lines).toContain("[1]https://tides.example/today");
    expect(lines).toContain("[2]https://tides.example/notes");
    expect(lines.some((line) => line.includes("1Kept."))).toBe(true);
  });

  test("or listed at the end", async () => {
    const last = (await linesWith("list")).at(-1)!;
    expect(last.slice(0, 3)).toEqual([
      "Addresses",
      "[1]https://tides.example/today",
      "[2]https://tides.example/notes",
    ]);
  });

  test("or left behind their words", async () => {
    expect((await linesWith("none")).flat().join()).not.toContain("tides.example");
  });
});

test("conventions are checked where they come in", async () => {
  const id = await write(bookOfPlaces());
  const { conventions } = (await author.call<any>("GET", `/books/${id}`)).body;
  const wrong = { conventions: { ...conventions, headings: 9 } };
  const { status, body } = await author.call<any>("PATCH", `/books/${id}`, wrong);
  expect([status, body.message]).toEqual([400, "From 0 to 5 levels of headings can be numbered."]);
});

test("companion files come along in every export, and each link to one is proven", async () => {
  const author = await server.client().signUp();
  const { id: bookId } = (await author.call<any>("POST", "/books", { title: "Refuges" })).body;
  const form = new FormData();
  form.append("files", new Blob(["%PDF-1.7 a plan"]), "R1 plan.pdf");
  const stored = await author.call<any>("POST", `/books/${bookId}/files`, form);
  const file = stored.body.stored[0].file.id;
  const link = {
    type: "link",
    attrs: { id: "l", destination: { kind: "file", file }, description: "The plan of R1" },
  };
  const document = {
    type: "doc",
    content: [
      { type: "title", attrs: { id: "t" }, content: [{ type: "text", text: "Refuges" }] },
      { type: "paragraph", content: [{ type: "text", text: "the plan (PDF)", marks: [link] }] },
    ],
  };
  const [first] = (await author.call<any>("GET", `/books/${bookId}/chapters`)).body;
  expect(
    (await author.call("POST", `/books/${bookId}/chapters`, { title: "Refuges", document })).status,
  ).toBe(201);
  await author.call("DELETE", `/books/${bookId}/chapters/${first.id}`);

  for (const format of ["pdf", "web", "epub"] as const) {
    const { proof, bytes } = await author.exported(bookId, format);
    expect([format, proof.complete, proof.intact]).toEqual([format, true, 1]);
    const inside = unzipSync(bytes);
    const folder = format === "epub" ? "EPUB/files" : "files";
    expect(Buffer.from(inside[`${folder}/R1-plan.pdf`]!).toString()).toBe("%PDF-1.7 a plan");
    if (format === "epub")
      expect((await epubcheck(kept("companions.epub", bytes))).output).toContain("No errors or warnings");
    if (format !== "pdf") continue;
    expect(proof.fileName).toBe("refuges-pdf.zip");
    const pdf = kept("companions.pdf", Buffer.from(inside["refuges.pdf"]!));
    expect(await qpdf(pdf)).toContain("No syntax or stream encoding errors");
    // Poppler reads the address as it stands: relative to the PDF.
    expect((await tool("pdfinfo", "-url", pdf)).output).toContain("files/R1-plan.pdf");
  }
});
