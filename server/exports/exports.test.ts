import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { strFromU8, unzipSync } from "fflate";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { epubAddresses, epubcheck, kept, popplerAddresses, qpdf, tool } from "../test/tools.ts";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
afterAll(() => server.close());

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
      expect(proof).toMatchObject({ complete: true, intact: 64, total: 64 });
      expect(message).toBe("All 64 links are in the file.");
    }
  });

  test("is the same bytes when nothing was changed", async () => {
    for (const format of ["pdf", "epub"] as const) {
      const [first, second] = [await author.exported(bookId, format), await author.exported(bookId, format)];
      expect([format, first.bytes.equals(second.bytes)]).toEqual([format, true]);
    }
  });

  // Two readers that are neither ours nor pdf.js: qpdf counts the annotations, poppler reads the structure tree.
  test("each link annotation of its PDF is an object of a Link element, as poppler and qpdf count", async () => {
    const path = kept("demo-structure.pdf", (await author.exported(bookId, "pdf")).bytes);
    const { output: plain } = await tool("qpdf", "--qdf", "--object-streams=disable", path, "-");
    const annotations = plain.match(/^\s*\/Subtype \/Link$/gm)!.length;
    const { output: tree } = await tool("pdfinfo", "-struct", path);
    const within: string[] = [];
    let inLinks = 0;
    for (const [, blanks, name] of tree.matchAll(/^( *)([A-Z]\w*)/gm)) {
      within.length = blanks!.length / 2;
      if (name === "Object" && within.at(-1) === "Link") inLinks++;
      within.push(name!);
    }
    expect(annotations).toBeGreaterThan(64);
    expect(inLinks).toBe(annotations);
  });

  // ISO 14289-1, 7.18.5; Matterhorn Protocol 28-011 and 28-012 (from memory).
  test("every link annotation of its PDF is in the structure tree and has an alternate description", async () => {
    const { bytes } = await author.exported(bookId, "pdf");
    const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    let annotations = 0;
    const described: [string, string][] = [];
    for (let number = 1; number <= pdf.numPages; number++) {
      const page = await pdf.getPage(number);
      const links = (await page.getAnnotations()).filter((one: any) => one.subtype === "Link");
      const tree = JSON.stringify(await page.getStructTree());
      for (const link of links as any[]) {
        expect(tree).toContain(`"id":"${link.id}"`);
        expect(link.contentsObj.str).not.toBe("");
        described.push([link.unsafeUrl, link.contentsObj.str]);
        annotations++;
      }
    }
    expect(annotations).toBeGreaterThan(57);
    expect((await pdf.getOutline()).map((item: any) => item.title)).toContain("Widow's Row");
    expect((await pdf.getMetadata()).info).toMatchObject({ Author: "Pell Arrandine", Language: "en" });
    expect(described).toContainEqual([
      "https://tides.hesterley.example/tables/today",
      "Today's tide tables, from the Hesterley Tide Office",
    ]);
  });
});

describe("pictures that are links", () => {
  const frame = { line: "none", thickness: 2, colour: "#1d4f8f" };
  const area = (id: string, shape: string, points: number[][], destination: object, more = {}) => ({
    id,
    shape,
    points,
    destination,
    alt: `Area ${id}`,
    description: null,
    frame,
    ...more,
  });
  let pdf: Awaited<ReturnType<Client["exported"]>>;
  let epub: Awaited<ReturnType<Client["exported"]>>;
  beforeAll(async () => {
    const picture = readFileSync(join(import.meta.dirname, "../../demo/manuscript/pictures/monks-path.png"));
    const markdown = `# One\n\nSee [the first\nwords](https://a.example/two).\n\n![Chart](monks-path.png)\n\nA line with ![Small](monks-path.png) in it.\n\n## Low water\n\nNine.`;
    const { body } = await author.bringIn(markdown, {}, { "monks-path.png": picture });
    const path = `/books/${body.book.id}`;
    const page = (await author.call<any>("POST", `${path}/chapters`, { title: "Packing", role: "companion" }))
      .body;
    const [{ id }] = (await author.call<any>("GET", `${path}/chapters`)).body;
    const { document, revision } = (await author.call<any>("GET", `${path}/chapters/${id}`)).body;
    const heading = document.content.find((node: any) => node.type === "heading").attrs.id;
    const pictures: any[] = [];
    JSON.parse(JSON.stringify(document), (_key, node) =>
      node?.type === "picture" ? pictures.push(node) : node,
    );
    const hotspots = [
      area(
        "a",
        "rectangle",
        [
          [0.1, 0.2],
          [0.3, 0.7],
        ],
        { kind: "web", address: "https://a.example/area" },
        { frame: { ...frame, line: "dashed" } },
      ),
      area(
        "b",
        "ellipse",
        [
          [0.5, 0.2],
          [0.9, 0.7],
        ],
        { kind: "email", address: "mailto:a@b.example" },
        { description: "Writes to A", frame: { ...frame, line: "underlined" } },
      ),
      area(
        "c",
        "polygon",
        [
          [0.4, 0.8],
          [0.5, 0.9],
          [0.3, 0.95],
        ],
        { kind: "place", target: heading },
      ),
      area(
        "d",
        "rectangle",
        [
          [0.8, 0.8],
          [0.9, 0.9],
        ],
        { kind: "place", target: page.document.content[0].attrs.id },
      ),
    ];
    let seen = 0;
    const drawn = JSON.parse(JSON.stringify(document), (_key, node) => {
      if (node?.type !== "picture") return node;
      const link = {
        type: "link",
        attrs: {
          id: `whole${seen}`,
          destination: { kind: "web", address: "https://a.example/whole" },
          description: null,
        },
      };
      // The first has areas and is a link itself, the small one in a line is a link alone.
      return seen++ === 0
        ? { ...node, marks: [link], attrs: { ...node.attrs, hotspots, width: 60 } }
        : { ...node, marks: [link] };
    });
    const saved = await author.call("PUT", `${path}/chapters/${id}`, { revision, document: drawn });
    expect(saved.status).toBe(200);
    pdf = await author.exported(body.book.id, "pdf");
    epub = await author.exported(body.book.id, "epub");
  });

  test("travel whole, with every area of every kind", () => {
    for (const { proof } of [pdf, epub]) {
      expect(proof.rows.filter((row: any) => row.verdict !== "intact")).toEqual([]);
      expect(proof).toMatchObject({ complete: true, total: 7 });
    }
  });

  test("keep the file's syntax, as qpdf and EPUBCheck see it", async () => {
    expect(await qpdf(kept("areas.pdf", pdf.bytes))).toContain("No syntax or stream encoding errors found");
    const checked = await epubcheck(kept("areas.epub", epub.bytes));
    expect([checked.status, checked.output]).toEqual([0, expect.not.stringMatching(/WARNING|ERROR/)]);
    expect(await popplerAddresses(kept("areas.pdf", pdf.bytes))).toEqual(
      expect.arrayContaining(["https://a.example/area", "mailto:a@b.example", "https://a.example/whole"]),
    );
  });

  test("lie in the PDF where they were drawn, at 60 percent of the text's width", async () => {
    const { promise } = getDocument({ data: new Uint8Array(pdf.bytes), verbosity: 0 });
    const document = await promise;
    const all: any[] = [];
    for (let n = 1; n <= document.numPages; n++)
      all.push(...(await (await document.getPage(n)).getAnnotations()));
    const box = (address: string) => {
      const [left, bottom, right, top] = all.find((one) => one.unsafeUrl === address).rect;
      return { left, width: right - left, height: top - bottom, top };
    };
    const [a, b] = [box("https://a.example/area"), box("mailto:a@b.example")];
    // A5 with margins of 19 mm has 110 mm of text; the picture is 1200 by 640.
    const width = (110 / 25.4) * 72 * 0.6;
    const height = (width * 640) / 1200;
    expect(a.width).toBeCloseTo(0.2 * width, 1);
    expect(a.height).toBeCloseTo(0.5 * height, 1);
    expect(b.left - a.left).toBeCloseTo(0.4 * width, 1);
    expect(b.top).toBeCloseTo(a.top, 1);
    expect(all.find((one) => one.unsafeUrl === "mailto:a@b.example").contentsObj.str).toBe("Writes to A");
    expect(all.find((one) => one.unsafeUrl === "https://a.example/area").contentsObj.str).toBe("Area a");
  });

  test("are areas of an SVG in the e-book, each with its name, and no script", () => {
    const page = strFromU8(unzipSync(epub.bytes)["EPUB/chapter-001.xhtml"]!);
    expect(page).toContain('viewBox="0 0 1200 640"');
    expect(page).toContain(
      '<rect x="120" y="128" width="240" height="320" fill="#ffffff" fill-opacity="0" stroke="#1d4f8f" stroke-width="2" stroke-dasharray="6 4"/>',
    );
    expect(page).toContain('<polygon points="480,512 600,576 360,608"');
    expect(page).toMatch(
      /<a href="chapter-002.xhtml#(\w+)" xlink:href="chapter-002.xhtml#\1" id="\w+"><title>Area d<\/title>/,
    );
    expect(page).not.toMatch(/<script| style=/);
    const opf = strFromU8(unzipSync(epub.bytes)["EPUB/package.opf"]!);
    expect(opf).toContain('<itemref idref="chapter-002" linear="no"/>');
  });
});

test("the looks of links are the book's own, in both exports, and nothing but looks is taken", async () => {
  const { body } = await author.bringIn(
    "# One\n\n[web](https://a.example/), [mail](mailto:a@b.example), [place](#two)\n\n## Two\n\nWords.",
  );
  const path = `/books/${body.book.id}`;
  const { looks } = (await author.call<any>("GET", path)).body;
  const refused = await author.call<any>("PATCH", path, {
    looks: { ...looks, web: { ...looks.web, colour: "red;}" } },
  });
  expect([refused.status, refused.body.message]).toEqual([400, "A link's colour is written as #rrggbb."]);
  const own = {
    ...looks,
    web: { ...looks.web, colour: "#8a1f5c", underline: "dashed", bold: true },
    place: { ...looks.place, underline: "none" },
  };
  expect((await author.call<any>("PATCH", path, { looks: own })).body.looks).toEqual(own);
  const pdf = await author.exported(body.book.id, "pdf");
  const epub = await author.exported(body.book.id, "epub");
  for (const { proof } of [pdf, epub]) expect(proof).toMatchObject({ complete: true, total: 3 });
  expect(await qpdf(kept("looks.pdf", pdf.bytes))).toContain("No syntax or stream encoding errors found");
  expect((await epubcheck(kept("looks.epub", epub.bytes))).output).toContain("No errors or warnings");
  const css = strFromU8(unzipSync(epub.bytes)["EPUB/style.css"]!);
  expect(css).toContain("a.web { color: #8a1f5c; text-decoration: underline dashed; font-weight: bold; }");
  expect(css).toContain("a.place { color: #1d4f8f; text-decoration: none; font-weight: inherit; }");
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
    const preflight = await author.call<{ obstacles: { code: string }[] }>(
      "POST",
      `/books/${body.book.id}/exports/preflight`,
      { format: "pdf" },
    );
    expect(preflight.body.obstacles).toEqual([
      expect.objectContaining({ code: "picture-alternative", chapter: "Paths", from: 8, to: 9 }),
    ]);
    expect((await author.exported(body.book.id, "pdf", { accessible: false })).proof.complete).toBe(true);
    expect((await author.exported(body.book.id, "epub")).proof.complete).toBe(true);
  });

  test("a letter that no font has is named with its place, and holds nothing up", async () => {
    // A letter of Unicode 14, from a script that the fonts do not know.
    const letter = "\u{10570}";
    const markdown = `# Tides\n\nAt low water ${letter} comes [x](https://a.example/). [${letter}](https://b.example/)`;
    const { id } = (await author.bringIn(markdown)).body.book;
    const { proof, bytes } = await author.exported(id, "pdf");
    const told = expect.stringMatching(
      /^No font of the PDF has a shape for “.+” \(U\+10570\), 2 times, near “At low water .+ comes x/u,
    );
    expect(proof.warnings).toEqual([{ code: "letter", chapter: "Tides", message: told }]);
    // It was told before, with where it stands.
    const { body } = await author.call<any>("POST", `/books/${id}/exports/preflight`, { format: "pdf" });
    expect(body.changes).toEqual([
      { code: "letter", chapter: "Tides", chapterId: expect.any(String), from: 21, to: 23, message: told },
    ]);
    // What changed in the words of a link is told as such.
    expect(proof.rows.map(({ verdict }: { verdict: string }) => verdict)).toEqual(["intact", "other-words"]);
    expect(await qpdf(kept("letters.pdf", bytes))).toContain("No syntax or stream encoding errors");
    expect((await exportOf(markdown, "epub")).proof).toMatchObject({ complete: true });
  });

  test("a damaged picture is named with its place, and its words stand there", async () => {
    const picture = readFileSync(join(import.meta.dirname, "../../demo/manuscript/pictures/monks-path.png"));
    const damaged = Buffer.from(picture);
    damaged.fill(0, 200, 4000);
    const { body } = await author.bringIn(
      "# Paths\n\n![The monks’ path](map.png)\n\n[x](https://a.example/)",
      {},
      { "map.png": damaged },
    );
    const preflight = await author.call<any>("POST", `/books/${body.book.id}/exports/preflight`, {
      format: "pdf",
    });
    const proof = await author.exported(body.book.id, "pdf");
    expect(proof.proof.warnings).toEqual([
      { code: "picture", chapter: "Paths", message: expect.stringContaining("“map.png” is damaged") },
    ]);
    expect(proof.proof.complete).toBe(true);
    // It was told before, with where it stands.
    const [{ message }] = proof.proof.warnings;
    expect(preflight.body.changes).toEqual([
      expect.objectContaining({ code: "picture", message, from: 8, to: 9 }),
    ]);
  });

  test("an export can be cancelled, and leaves nothing", async () => {
    const { body } = await author.bringIn(
      `# T\n\n${"Words and [a link](https://a.example/) in it. ".repeat(4000)}`,
    );
    const job = await author.call<{ id: string }>("POST", `/books/${body.book.id}/exports`, {
      format: "pdf",
    });
    const message = async () => (await author.call("GET", `/jobs/${job.body.id}`)).body["message"];
    while ((await message()) !== "Setting the pages") await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await author.call("DELETE", `/jobs/${job.body.id}`)).status).toBe(204);
    expect((await author.jobEnd(job.body)).state).toBe("cancelled");
    expect((await author.call("GET", `/books/${body.book.id}/exports`)).body).toEqual([]);
    expect((await exportOf("# T\n\n[x](https://a.example/)", "pdf")).proof.complete).toBe(true);
  });
});

describe("the pages of a PDF", () => {
  const words = "The stones lie bare for two hours on each side of low water. ".repeat(120);
  const pageText = async (path: string, page: number) =>
    (await tool("pdftotext", "-layout", "-f", String(page), "-l", String(page), path, "-")).output
      .trimEnd()
      .split("\n");

  test("are laid out as the book has it, and stay PDF/UA-1", async () => {
    const { body } = await author.bringIn(
      `# The first way\n\n${words}\n\n# The second way\n\n${words} [To the start](#the-first-way)`,
    );
    const bookId = body.book.id;
    const layout = {
      ...body.book.layout,
      trim: "letter",
      runningHeads: true,
      pageNumbers: "outside",
      fontSize: 12,
      inner: 30,
    };
    expect(
      (await author.call("PATCH", `/books/${bookId}`, { layout: { ...layout, inner: 2 } })).body["message"],
    ).toContain("inner margin");
    expect((await author.call("PATCH", `/books/${bookId}`, { layout })).status).toBe(200);
    const { proof, bytes } = await author.exported(bookId, "pdf");
    expect(proof.complete).toBe(true);
    const path = kept("layout.pdf", bytes);
    const info = (await tool("pdfinfo", path)).output;
    expect(info).toMatch(/Page size:\s+612 x 792 pts \(letter\)/);
    expect(await qpdf(path)).toContain("No syntax or stream encoding errors");
    // The title and the contents come first; the first chapter begins on page 3 and goes on.
    expect((await pageText(path, 3))[0]).toContain("The first way");
    expect((await pageText(path, 4))[0]!.trim()).toBe(body.book.title);
    const last = Number(/Pages:\s+(\d+)/.exec(info)![1]);
    const odd = last % 2 === 1 ? last : last - 1;
    const lines = await pageText(path, odd);
    expect(lines[0]!.trim()).toBe("The second way");
    expect(lines[0]!.startsWith("   ")).toBe(true);
    expect(lines.at(-1)!.trim()).toBe(String(odd - 1));

    const csv = await fetch(`${server.url}/api/books/${bookId}/exports/${proof.id}/proof.csv`, {
      headers: { cookie: author.cookie },
    });
    const [head, row] = (await csv.text()).split("\n");
    expect(head).toContain("chapter,text,destination,description,verdict,found,note");
    expect(row).toMatch(/^The second way,To the start,#\w+,,intact,"?page \d+/);
  });
});
