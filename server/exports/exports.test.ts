import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { execFile } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { SaxesParser } from "saxes";
import { strFromU8, unzipSync } from "fflate";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
const folder = mkdtempSync(join(tmpdir(), "vennet-exports-"));
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

function kept(name: string, bytes: Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

/** Runs a tool to its end; the server under test, which shares this process, goes on meanwhile. */
function tool(command: string, ...args: string[]): Promise<{ status: number; output: string }> {
  return new Promise((resolve) => {
    execFile(command, args, { maxBuffer: 1 << 26 }, (error, stdout, stderr) =>
      resolve({
        status: typeof error?.code === "number" ? error.code : error ? -1 : 0,
        output: stdout + stderr,
      }),
    );
  });
}

/** What qpdf says of a PDF's syntax (ISO 32000). */
const qpdf = async (path: string): Promise<string> => (await tool("qpdf", "--check", path)).output;

/** EPUBCheck, Debian's; it knows EPUB 3.2, of which 3.3 changes nothing that these books use. */
const epubcheck = (path: string) => tool("java", "-jar", "/usr/share/java/epubcheck.jar", path);

/** The web addresses of a PDF as poppler reads them. */
async function popplerAddresses(path: string): Promise<string[]> {
  const lines = (await tool("pdfinfo", "-url", path)).output.split("\n");
  return lines.flatMap((line) => /^\s*\d+\s+Annotation\s+(.*)$/.exec(line)?.[1]?.trim() ?? []);
}

/** The addresses of an e-book by a plain XML parse, in the order of its files. */
function epubAddresses(bytes: Buffer): string[] {
  const found: string[] = [];
  const files = unzipSync(bytes);
  for (const name of Object.keys(files)
    .filter((file) => file.endsWith(".xhtml"))
    .sort()) {
    const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false } as { xmlns: false });
    parser.on("opentag", (tag) => {
      const href = tag.attributes["href"] as string | undefined;
      if (tag.name === "a" && /^[a-z]+:/.test(href ?? "")) found.push(href!);
    });
    parser.write(strFromU8(files[name]!)).close();
  }
  return found;
}

const distinct = (addresses: string[]): string[] => [...new Set(addresses)].sort();

describe("a document that this project did not write", () => {
  // The README of ajv 6.15.0, an npm package: 171 web links and 91 links to its own headings.
  const readme = join(
    dirname(createRequire(join(import.meta.dirname, "../../e2e/package.json")).resolve("ajv/package.json")),
    "README.md",
  );
  const markdown = readFileSync(readme, "utf8");
  let bookId: string;

  beforeAll(async () => {
    const { body } = await author.bringIn(markdown, { baseAddress: "https://docs.example/ajv/" });
    bookId = body.book.id;
    // Each inline link of the file, as a plain search of its text sees them outside listings.
    const plain = markdown.replace(/^```[\s\S]*?^```/gm, "");
    const written = plain.match(/\]\((?!\s)[^)\s]+/g)!.length - plain.match(/!\[[^\]]*\]\(/g)!.length;
    expect(body.book.links).toBeGreaterThanOrEqual(written);
    expect(body.book.links).toBeGreaterThan(250);
  });

  test("arrives in a PDF with every link, as poppler counts them too", async () => {
    const { proof, bytes } = await author.exported(bookId, "pdf");
    expect(proof.rows.filter((row: any) => row.verdict !== "intact")).toEqual([]);
    expect(proof).toMatchObject({ complete: true, extraLinks: [] });
    const path = kept("readme.pdf", bytes);
    expect(await qpdf(path)).toContain("No syntax or stream encoding errors found");
    const web = proof.rows.filter((row: any) => !row.destination.startsWith("#"));
    const halves = web.reduce((sum: number, row: any) => sum + row.found.length, 0);
    const addresses = await popplerAddresses(path);
    expect(addresses).toHaveLength(halves);
    expect(distinct(addresses)).toEqual(distinct(web.map((row: any) => row.destination)));
    const info = (await tool("pdfinfo", path)).output;
    expect(info).toMatch(/Tagged:\s+yes/);
    const names = (await tool("pdfinfo", "-dests", path)).output;
    for (const row of proof.rows)
      if (row.destination.startsWith("#")) expect(names).toContain(row.destination.slice(1));
  });

  test("arrives in an e-book with every link, as a plain parse counts them too", async () => {
    const { proof, bytes } = await author.exported(bookId, "epub");
    expect(proof).toMatchObject({ complete: true, extraLinks: [] });
    expect(await epubcheck(kept("readme.epub", bytes))).toMatchObject({
      status: 0,
      output: expect.stringContaining("No errors or warnings"),
    });
    const web = proof.rows
      .filter((row: any) => !row.destination.startsWith("#"))
      .map((row: any) => row.destination);
    expect(epubAddresses(bytes).sort()).toEqual(web.sort());
  });
});

describe("the demo book", () => {
  const demo = join(import.meta.dirname, "../../demo/manuscript");
  let bookId: string;
  beforeAll(async () => {
    const picture = readFileSync(join(demo, "pictures/monks-path.png"));
    const { body } = await author.bringIn(
      readFileSync(join(demo, "hesterley-sound.md")),
      {},
      { "monks-path.png": picture },
    );
    bookId = body.book.id;
  });

  test("passes qpdf and EPUBCheck, and its proofs are complete", async () => {
    const pdf = await author.exported(bookId, "pdf");
    const epub = await author.exported(bookId, "epub");
    expect(await qpdf(kept("demo.pdf", pdf.bytes))).toContain("No syntax or stream encoding errors found");
    expect((await epubcheck(kept("demo.epub", epub.bytes))).status).toBe(0);
    for (const { proof, message } of [pdf, epub]) {
      expect(proof).toMatchObject({ complete: true, intact: 57, total: 57 });
      expect(message).toBe("All 57 links are in the file.");
    }
  });

  test("is the same bytes when nothing was changed", async () => {
    for (const format of ["pdf", "epub"] as const) {
      const [first, second] = [await author.exported(bookId, format), await author.exported(bookId, format)];
      expect([format, first.bytes.equals(second.bytes)]).toEqual([format, true]);
    }
  });

  // ISO 14289-1, 7.18.5; Matterhorn Protocol 28-011 and 28-012 (from memory).
  test("every link annotation of its PDF is in the structure tree and has an alternate description", async () => {
    const { bytes } = await author.exported(bookId, "pdf");
    const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    let annotations = 0;
    for (let number = 1; number <= pdf.numPages; number++) {
      const page = await pdf.getPage(number);
      const links = (await page.getAnnotations()).filter((one: any) => one.subtype === "Link");
      const tree = JSON.stringify(await page.getStructTree());
      for (const link of links as any[]) {
        expect(tree).toContain(`"id":"${link.id}"`);
        expect(link.contentsObj.str).not.toBe("");
        annotations++;
      }
    }
    expect(annotations).toBeGreaterThan(57);
    expect((await pdf.getOutline()).map((item: any) => item.title)).toContain("Widow's Row");
    expect((await pdf.getMetadata()).info).toMatchObject({ Author: "Pell Arrandine", Language: "en" });
    const described = (await (await pdf.getPage(3)).getAnnotations()).map((one: any) => [
      one.unsafeUrl,
      one.contentsObj.str,
    ]);
    expect(described).toContainEqual([
      "https://tides.hesterley.example/tables/today",
      "Today's tide tables, from the Hesterley Tide Office",
    ]);
  });
});

describe("what is hard to set", () => {
  const exportOf = async (markdown: string, format: "pdf" | "epub", more = {}) =>
    author.exported((await author.bringIn(markdown)).body.book.id, format, more);

  test("a lost link is told loudly", async () => {
    const { proof, message } = await exportOf(
      "# T\n\n[plan](plan.pdf) and [web](https://a.example/) and [x](#nowhere)",
      "pdf",
    );
    expect(message).toBe("2 of 3 links are not in the file as they should be.");
    expect(proof).toMatchObject({ complete: false, intact: 1, total: 3 });
    expect(proof.rows.map((row: any) => row.verdict)).toEqual(["missing", "intact", "missing"]);
  });

  test("links in titles, notes, tables, listings, quotes, over lines and pages, beside each other", async () => {
    const long = "again and again over the sands ".repeat(60).trim();
    const hyphens = "incomprehensibilities counterrevolutionaries ".repeat(12).trim();
    const markdown = `# A [title](https://t.example/)

## [Heading](https://h.example/) too

#### Skipped

[a](https://a.example/)[b](https://b.example/) **[bold](https://c.example/)** [\`code\`](https://d.example/ "Described (with) \\\\ brackets — é")

> [quoted](https://e.example/)

| [head](https://f.example/) |
|---|
| [cell](https://g.example/)[^1] |

${"Filler. ".repeat(200)}

[${long}](https://i.example/) and [${hyphens}](https://j.example/) and [words[^2] with a note](https://k.example/)

<pre><a href="https://l.example/">in a listing</a></pre>

[Ебб & поток <b> ﬁ](https://m.example/?q=a%20b&c=(d)) [émile](https://ünï.example/ä)

[^1]: [note](https://n.example/)
[^2]: [${long}](https://o.example/)
`;
    for (const format of ["pdf", "epub"] as const) {
      const { proof } = await exportOf(markdown, format);
      expect(proof.rows.filter((row: any) => row.verdict !== "intact")).toEqual([]);
      expect([format, proof.complete, proof.total]).toEqual([format, true, 17]);
      if (format === "pdf") expect(proof.rows.some((row: any) => row.found.length > 1)).toBe(true);
    }
  });

  test("emoji, mathematics and symbols have glyphs, so the PDF/UA claim holds", async () => {
    expect(
      (await exportOf("# T 🌊\n\n⚠️ ✔ → ≤ ∑ ☐ 🥾 [x 👍](https://a.example/)", "pdf")).proof.complete,
    ).toBe(true);
  });

  test("a picture without words stops the accessible PDF with its place named, and only that", async () => {
    const picture = readFileSync(join(import.meta.dirname, "../../demo/manuscript/pictures/monks-path.png"));
    const { body } = await author.bringIn("# Paths\n\n![](map.png)", {}, { "map.png": picture });
    await expect(author.exported(body.book.id, "pdf")).rejects.toThrow(
      /failed: Chapter “Paths”: the picture “map\.png” has no text alternative/,
    );
    const obstacles = await author.call<{ code: string }[]>(
      "GET",
      `/books/${body.book.id}/exports/obstacles`,
    );
    expect(obstacles.body.map(({ code }) => code)).toEqual(["picture-alternative"]);
    expect((await author.exported(body.book.id, "pdf", { accessible: false })).proof.complete).toBe(true);
    expect((await author.exported(body.book.id, "epub")).proof.complete).toBe(true);
  });

  test("a script that no font has is named as the reason, and the tagged PDF can still be had", async () => {
    const markdown = "# T\n\nထ [x](https://a.example/)";
    await expect(exportOf(markdown, "pdf")).rejects.toThrow(/failed: .*(font|display)/);
    expect((await exportOf(markdown, "pdf", { accessible: false })).proof.complete).toBe(true);
  });

  test("an export can be cancelled, and leaves nothing", async () => {
    const { body } = await author.bringIn(
      `# T\n\n${"Words and [a link](https://a.example/) in it. ".repeat(4000)}`,
    );
    const job = await author.call<{ id: string }>("POST", `/books/${body.book.id}/exports`, {
      format: "pdf",
    });
    await new Promise((resolve) => setTimeout(resolve, 600));
    expect((await author.call("DELETE", `/jobs/${job.body.id}`)).status).toBe(204);
    expect((await author.jobEnd(job.body)).state).toBe("cancelled");
    expect((await author.call("GET", `/books/${body.book.id}/exports`)).body).toEqual([]);
    expect((await exportOf("# T\n\n[x](https://a.example/)", "pdf")).proof.complete).toBe(true);
  });
});
