import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { kept, qpdf, tool } from "../test/tools.ts";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

const filler = "The stones lie bare for two hours on each side of low water. ".repeat(60);
const markdown = `# Tides\n\nAsk [the office](https://tides.example/ "Tide office") or [the plan](plan.pdf), or see [the ways](#ways).\n\n${filler}\n\n# Ways\n\nBy foot.[^n]\n\n[^n]: Or by boat.`;

let server: TestServer;
let author: Client;
let bookId: string;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
  bookId = (await author.bringIn(markdown)).body.book.id;
});
afterAll(() => server.close());

test("a preflight tells what becomes of each kind of link in a format, and which cannot travel", async () => {
  const told = async (format: string): Promise<any[]> => {
    const { status, body } = await author.call<any>("POST", `/books/${bookId}/exports/preflight`, { format });
    expect(status).toBe(200);
    return body.links;
  };
  const [pdf, docx] = [await told("pdf"), await told("docx")];
  const counts = [
    ["web", 1],
    ["file", 1],
    ["place", 1],
    ["note", 1],
  ];
  for (const links of [pdf, docx]) expect(links.map(({ kind, count }) => [kind, count])).toEqual(counts);
  expect(pdf[2].becomes).toBe("Jump to the exact line.");
  expect(docx[2].becomes).toContain("bookmark");
  expect(pdf[1].lost).toEqual([
    { chapter: "Tides", text: "the plan", reason: expect.stringContaining("plan.pdf") },
  ]);
});

test("Markdown and a text document are exported and proven like the others", async () => {
  for (const format of ["markdown", "docx", "odt"] as const) {
    const { proof } = await author.exported(bookId, format);
    // The plan was never brought along; where the text is gone on with, its path stays.
    const intact = format === "markdown" ? 3 : 2;
    expect([format, proof.intact, proof.total, proof.extraLinks]).toEqual([format, intact, 3, []]);
    const plan = proof.rows.find(({ text }: any) => text === "the plan");
    expect(plan).toMatchObject({ verdict: format === "markdown" ? "intact" : "missing" });
  }
});

test("an e-book has the pages of the PDF before it, and says so where there is none", async () => {
  const alone = (await author.bringIn(markdown)).body.book.id;
  const before = await author.exported(alone, "epub");
  expect(before.proof.warnings).toEqual([expect.objectContaining({ code: "page-list" })]);
  expect(strFromU8(unzipSync(before.bytes)["EPUB/nav.xhtml"]!)).not.toContain("page-list");
  await author.exported(alone, "pdf");
  const after = await author.exported(alone, "epub");
  expect(after.proof.warnings).toEqual([]);
  const files = unzipSync(after.bytes);
  const nav = strFromU8(files["EPUB/nav.xhtml"]!);
  const pages = [...nav.matchAll(/<a href="(chapter-\d+\.xhtml)#(page-\d+)">(\d+)<\/a>/g)];
  expect(pages.length).toBeGreaterThan(1);
  for (const [, file, id] of pages) expect(strFromU8(files[`EPUB/${file!}`]!)).toContain(`id="${id!}"`);
});

test("one chapter is set from the text that is open, and the book is not changed", async () => {
  const [tides] = (await author.call<any>("GET", `/books/${bookId}/chapters`)).body;
  const { document } = (await author.call<any>("GET", `/books/${bookId}/chapters/${tides.id}`)).body;
  document.content.splice(1, 0, { type: "paragraph", content: [{ type: "text", text: "Not saved yet." }] });
  const set = async (body: unknown): Promise<Response> =>
    fetch(`${server.url}/api/books/${bookId}/exports/chapters/${tides.id}/pages`, {
      method: "POST",
      headers: { cookie: author.cookie, "content-type": "application/json" },
      body: JSON.stringify(body),
    });
  const answer = await set({ document });
  expect(answer.headers.get("content-type")).toContain("application/pdf");
  const path = kept("chapter.pdf", Buffer.from(await answer.arrayBuffer()));
  expect(await qpdf(path)).toContain("No syntax or stream encoding errors found");
  const { output } = await tool("pdftotext", "-raw", path, "-");
  expect(output).toContain("Not saved yet.");
  expect(output).not.toContain("By foot.");
  const { body } = await author.call<any>("GET", `/books/${bookId}/chapters/${tides.id}`);
  expect(JSON.stringify(body.document)).not.toContain("Not saved yet.");
  expect((await set({ document: { type: "doc", content: [{ type: "paragraph" }] } })).status).toBe(422);
  const stranger = await server.client().signUp();
  const theirs = await stranger.call("POST", `/books/${bookId}/exports/chapters/${tides.id}/pages`, {
    document,
  });
  expect(theirs.status).toBe(404);
});

test("a chapter that is set alone has the numbers of the whole book", async () => {
  const { body } = await author.bringIn(
    "# Tides\n\n## Springs\n\nText.[^1]\n\n[^1]: One.\n\n# Posts\n\nAsk.[^2]\n\n[^2]: Two.",
  );
  const { id } = body.book as { id: string };
  const conventions = {
    headings: 2,
    figures: null,
    tables: null,
    notes: "book",
    notesAt: "page",
    returnWords: "↩",
  };
  expect((await author.call("PATCH", `/books/${id}`, { conventions })).status).toBe(200);
  const [, posts] = (await author.call<any>("GET", `/books/${id}/chapters`)).body;
  const { document } = (await author.call<any>("GET", `/books/${id}/chapters/${posts.id}`)).body;
  const springs = (await author.call<any[]>("GET", `/books/${id}/places`)).body.find(
    ({ text }) => text === "Springs",
  );
  document.content[1].content.push(
    { type: "text", text: " Section " },
    { type: "cross_reference", attrs: { id: "r1", target: springs.id, form: "number" } },
  );
  const answer = await fetch(`${server.url}/api/books/${id}/exports/chapters/${posts.id}/pages`, {
    method: "POST",
    headers: { cookie: author.cookie, "content-type": "application/json" },
    body: JSON.stringify({ document }),
  });
  const path = kept("alone.pdf", Buffer.from(await answer.arrayBuffer()));
  const { output } = await tool("pdftotext", "-raw", path, "-");
  expect(output.replace(/\s+/g, " ")).toMatch(/2 Posts Ask\. ?2 Section 1\.1.*2 ?Two\./);
});

test("presets are kept with the book, and what is none is refused", async () => {
  const change = (presets: unknown) => author.call<any>("PATCH", `/books/${bookId}`, { presets });
  const options = {
    format: "web",
    accessible: true,
    addresses: "none",
    companions: "left-out",
    pages: "chapters",
    fonts: false,
    pageList: true,
    layout: null,
  };
  expect((await change([{ name: "For the site", options }])).status).toBe(200);
  const { presets } = (await author.call<any>("GET", `/books/${bookId}`)).body;
  expect(presets).toEqual([{ name: "For the site", options }]);
  for (const wrong of [
    [{ name: " ", options }],
    [{ name: "A", options: { ...options, format: "papyrus" } }],
    [
      { name: "A", options },
      { name: "A", options },
    ],
    "none",
  ]) {
    const { status, body } = await change(wrong);
    expect([status, typeof body.message]).toEqual([400, "string"]);
  }
});

// Tags of RFC 5646, appendix A (from memory): a region of letters, a script, both, a region of digits, a variant.
test.each(["en-GB", "zh-Hant", "sr-Latn-RS", "es-419", "de-CH-1901"])(
  "a book in %s is exported as PDF and e-book",
  async (language) => {
    const changed = await author.call("PATCH", `/books/${bookId}`, { language });
    expect(changed.status).toBe(200);
    const { bytes } = await author.exported(bookId, "pdf");
    const path = kept(`${language}.pdf`, bytes);
    expect(await qpdf(path)).toContain("No syntax or stream encoding errors");
    const catalogue = (await tool("qpdf", "--json=2", "--json-key=qpdf", path)).output;
    const told = /"\/Lang": "u:([^"]+)"/.exec(catalogue)?.[1];
    expect(language.toLowerCase().split("-")).toEqual(expect.arrayContaining(told!.toLowerCase().split("-")));
    const book = unzipSync((await author.exported(bookId, "epub")).bytes);
    expect(strFromU8(book["EPUB/package.opf"]!)).toContain(`<dc:language>${language}</dc:language>`);
  },
);
