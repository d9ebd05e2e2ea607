import { expect, test } from "@jest/globals";
import { strToU8 } from "fflate";
import { bring, linksIn } from "../../test/brought.ts";
import { smallEpub } from "../../test/small-epub.ts";

/** An e-book with a table of contents, as lines of a nested list. */
function bookWith(contents: string, pages: Record<string, string>): Uint8Array {
  const nav = `<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops"><body><nav epub:type="toc"><h2>Contents</h2><ol>${contents}</ol></nav></body></html>`;
  return smallEpub(pages, { "OPS/nav.xhtml": strToU8(nav) });
}
const entry = (href: string, words: string, inner = ""): string =>
  `<li><a href="text/${href}">${words}</a>${inner && `<ol>${inner}</ol>`}</li>`;
const blocksOf = async (bytes: Uint8Array): Promise<string[][]> =>
  (await bring(bytes)).chapters.map((doc) =>
    doc.children.map((block) =>
      block.type.name === "heading"
        ? `${"#".repeat(Number(block.attrs["level"]))} ${block.textContent}`
        : block.textContent,
    ),
  );

test("titles that no page marks as headings begin its chapters and sections", async () => {
  const bytes = bookWith(
    entry("a.xhtml", "1. Low water", entry("a.xhtml#slack", "Slack")) + entry("b.xhtml#ways", "Ways"),
    {
      "a.xhtml": `<p class="big"><b>Low water</b></p><p>See <a href="b.xhtml">the ways</a>.</p><p id="slack">Slack</p><p>Still.</p>`,
      "b.xhtml": `<div id="ways"><p>Ways</p><p>By <a href="a.xhtml#slack">slack</a>.</p></div>`,
    },
  );
  expect(await blocksOf(bytes)).toEqual([
    ["Low water", "See the ways.", "# Slack", "Still."],
    ["Ways", "By slack."],
  ]);
  expect(await linksIn(bytes)).toEqual([
    ["the ways", "→ Ways"],
    ["slack", "→ Slack"],
  ]);
  expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 2, changed: 0 });
});

test("several chapters in one page are told apart", async () => {
  const bytes = bookWith(entry("a.xhtml#one", "Low") + entry("a.xhtml#two", "High"), {
    "a.xhtml": `<div id="one"><p>Low</p><p>Sands.</p></div><div id="two"><p>High</p><p>Water.</p></div>`,
  });
  expect(await blocksOf(bytes)).toEqual([
    ["Low", "Sands."],
    ["High", "Water."],
  ]);
});

test("a title that stands in parts, or in a table, is one heading", async () => {
  const bytes = bookWith(entry("a.xhtml", "Chapter 1: Low water") + entry("b.xhtml", "Ways"), {
    "a.xhtml": `<p>Chapter 1</p><p>Low water</p><p>See <a href="b.xhtml">ways</a>.</p>`,
    "b.xhtml": `<table><tr><td>Ways</td></tr></table><p>By foot.</p>`,
  });
  const [one, two] = (await bring(bytes)).chapters;
  expect(one!.child(0).textContent).toMatch(/^Chapter 1\s*Low water$/);
  expect([one!.child(1).textContent, two!.child(0).textContent]).toEqual(["See ways.", "Ways"]);
  expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 1, changed: 0 });
});

test("a page that neither has a heading nor says its title is called as in the contents", async () => {
  const bytes = bookWith(entry("a.xhtml", "Before the tide") + entry("b.xhtml", "Ways"), {
    "a.xhtml": `<p>For all who wait, as on <a href="b.xhtml">the ways</a> and <a href="a.xhtml">here</a>.</p>`,
    "b.xhtml": `<h2>All the ways</h2><p>By <a href="a.xhtml">patience</a>.</p>`,
  });
  expect(await blocksOf(bytes)).toEqual([
    ["Before the tide", "For all who wait, as on the ways and here."],
    ["All the ways", "By patience."],
  ]);
  expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 3, changed: 0 });
});

test("an NCX tells titles, too", async () => {
  const ncx = `<ncx xmlns="http://www.daisy.org/z3986/2005/ncx/"><navMap><navPoint id="x"><navLabel><text>Low water</text></navLabel><content src="text/a.xhtml"/><navPoint id="y"><navLabel><text>Slack</text></navLabel><content src="text/a.xhtml#slack"/></navPoint></navPoint></navMap></ncx>`;
  const nav = `<html xmlns="http://www.w3.org/1999/xhtml"><body><p>None</p></body></html>`;
  const bytes = smallEpub(
    { "a.xhtml": `<p>LOW WATER</p><p>Sands.</p><p id="slack">Slack</p>` },
    { "OPS/toc.ncx": strToU8(ncx), "OPS/nav.xhtml": strToU8(nav) },
    { "toc.ncx": "application/x-dtbncx+xml" },
  );
  expect(await blocksOf(bytes)).toEqual([["LOW WATER", "Sands.", "# Slack"]]);
});
