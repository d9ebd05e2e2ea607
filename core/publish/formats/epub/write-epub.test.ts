import { describe, expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { strFromU8, unzipSync } from "fflate";
import { bookOf, bringIn } from "../../../test/sample-book.ts";
import { writeEpub } from "./write-epub.ts";

const markdown = `# Tides & "boats"

See [the *office*](https://tides.example/?a=1&b=2 "Tide <office>"), [below](#low-water), [next](#two) and [a file](plan.pdf).[^n]

| A | B |
|:-:|--:|
| [x](https://x.example) | y |

3. three
   - [ ] task

\`\`\`
code <b>
\`\`\`

## Low water

Again[^n] and [^m].

[^n]: A note with [a link](https://n.example/).
[^m]: Second.

# Two

#### Deep

<a id="spot"></a>Here. [To the spot](#spot)
`;

const open = (bytes: Uint8Array): Record<string, string> =>
  Object.fromEntries(Object.entries(unzipSync(bytes)).map(([name, content]) => [name, strFromU8(content)]));

describe("an e-book", () => {
  const book = bookOf(markdown);
  const bytes = writeEpub(book);
  const files = open(bytes);

  // OCF 3.3, 4.3: `mimetype` is the first entry, stored, with nothing before its content.
  test("begins with its media type, uncompressed", () => {
    expect(strFromU8(bytes.slice(30, 58))).toBe("mimetypeapplication/epub+zip");
    expect([bytes[8], bytes[9]]).toEqual([0, 0]);
  });

  // EPUBCheck's TypeScript port, for the rules of EPUB 3.3.
  test("passes EPUBCheck", async () => {
    const result = await EpubCheck.validate(bytes);
    expect(
      result.messages.filter(
        (m) => m.severity === "error" || m.severity === "fatal" || m.severity === "warning",
      ),
    ).toEqual([]);
    expect(result.valid).toBe(true);
  });

  test("is the same bytes for the same book", () => {
    expect(Buffer.from(writeEpub(book)).equals(Buffer.from(bytes))).toBe(true);
  });

  test("has each link, with its description, and leads over chapters", () => {
    const one = files["EPUB/chapter-001.xhtml"]!;
    expect(one).toContain('href="https://tides.example/?a=1&amp;b=2" title="Tide &lt;office&gt;" id=');
    expect(one).toMatch(/<a class="place" href="#[a-z0-9]{12}" id="\w+">below<\/a>/);
    expect(one).toMatch(/<a class="place" href="chapter-002\.xhtml#[a-z0-9]{12}" id="\w+">next<\/a>/);
    expect(one).toContain('<span class="no-link">a file</span>');
  });

  // EPUB Structural Semantics and DPUB-ARIA 1.1.
  test("notes are linked there and back, once for each reference", () => {
    const one = files["EPUB/chapter-001.xhtml"]!;
    expect(one.match(/epub:type="noteref" role="doc-noteref"/g)).toHaveLength(3);
    expect(one.match(/epub:type="footnote" role="doc-footnote"/g)).toHaveLength(2);
    expect(one.match(/role="doc-backlink"/g)).toHaveLength(3);
    for (const [, target] of one.matchAll(/href="#((?:ref|note)-[^"]+)"/g))
      expect(one).toContain(`id="${target}"`);
  });

  // EPUB Accessibility 1.1.
  test("says what is true of its accessibility", () => {
    const opf = files["EPUB/package.opf"]!;
    for (const property of [
      "accessMode",
      "accessModeSufficient",
      "accessibilityFeature",
      "accessibilityHazard",
      "accessibilitySummary",
    ]) {
      expect(opf).toContain(`property="schema:${property}"`);
    }
    expect(opf).not.toContain("alternativeText");
    expect(opf).toContain('<meta property="dcterms:modified">2026-03-01T08:00:00Z</meta>');
  });

  test("headings step down one level at a time", () => {
    expect(files["EPUB/chapter-002.xhtml"]).toMatch(/<h1 [^>]*>Two<\/h1>\n<h2 [^>]*>Deep<\/h2>/);
  });

  test("text is text: nothing an author writes becomes markup", () => {
    const nasty = bookOf("# a\n\n`<script>` &amp;lt; \u0000]]>", { title: "<b>&\"'" });
    const page = open(writeEpub(nasty));
    expect(page["EPUB/chapter-001.xhtml"]).toContain("&lt;script&gt;");
    expect(page["EPUB/title.xhtml"]).toContain("&lt;b&gt;&amp;&quot;'</h1>");
  });
});

test("pictures travel when they are used, and their absence of words is told", async () => {
  // The smallest PNG there is: one pixel.
  const png = Uint8Array.from(
    atob("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="),
    (c) => c.charCodeAt(0),
  );
  const book = (alt: string) => {
    const { chapters } = bringIn(`# T\n\n![${alt}](a.png)`);
    const json = JSON.parse(
      JSON.stringify(chapters[0]!.toJSON()).replace('"file":null', '"file":"pic"'),
    ) as unknown;
    const pictures = ["pic", "unused"].map((id) => ({ id, mediaType: "image/png" as const, bytes: png }));
    return {
      ...bookOf(""),
      chapters: [{ id: "c", role: "chapter" as const, doc: chapters[0]!.type.schema.nodeFromJSON(json) }],
      pictures,
    };
  };
  const described = writeEpub(book("A pixel"));
  const files = open(described);
  expect(Object.keys(files).filter((name) => name.endsWith(".png"))).toEqual(["EPUB/picture-pic.png"]);
  expect(files["EPUB/package.opf"]).toContain("alternativeText");
  expect((await EpubCheck.validate(described)).valid).toBe(true);
  expect(open(writeEpub(book("")))["EPUB/package.opf"]).toContain("some pictures have no text alternative");
});
