import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { bring, isReadOrRefused, linksIn } from "../../test/brought.ts";
import { redDot } from "../../test/red-dot.ts";

const packed = (files: Record<string, string | Uint8Array>): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, content]) => [
        name,
        typeof content === "string" ? strToU8(content) : content,
      ]),
    ),
  );

const guide = packed({
  "guide/zulu.html": '<!doctype html><p id="end">The end. <a href="index.html">Home</a></p>',
  "guide/index.html":
    '<!doctype html><html lang="en-GB"><head><title>Hesterley Sound</title><meta name="author" content="Pell"></head><body><h1>Walks</h1><p><a href="sands/low.html#tide">Tides</a> <a href="notes.md#boats">Boats</a> <a href="plan.pdf">plan</a> <a href="gone.html">gone</a> <img src="img/dot.png" alt="Dot"></p></body></html>',
  "guide/sands/low.html":
    '<!doctype html><h2>Low water</h2><p id="tide">At nine, see <a href="../index.html">the start</a> and <a href="#tide">this</a>.<img src="../img/dot.png" alt=""></p>',
  "guide/notes.md": "# Notes\n\nSee [the end](zulu.html#end)[^1].\n\n## Boats\n\nRow.\n\n[^1]: By day.",
  "guide/more.md": "Also[^1].\n\n[^1]: By night.",
  "guide/plan.pdf": "%PDF-1.4",
  "guide/img/dot.png": redDot,
  "__MACOSX/guide/._index.html": "x",
});

test("a packed folder is one text: its pages as they link to each other, with pictures, files and notes of their own", async () => {
  const { title, author, language, chapters, pictures, companions, arrival } = await bring(guide);
  expect([title, author, language]).toEqual(["Hesterley Sound", "Pell", "en-GB"]);
  expect(chapters.map((doc) => doc.firstChild!.textContent)).toEqual([
    "Walks",
    "Low water",
    "Notes",
    "zulu",
    "more",
  ]);
  expect(pictures.map(({ name }) => name)).toEqual(["dot.png"]);
  expect(companions.map(({ name }) => name)).toEqual(["plan.pdf"]);
  expect(
    (await linksIn(guide)).map(([words, to]) => [words, to!.replace(/^[0-9a-f-]{36}$/, "plan")]),
  ).toEqual([
    ["Tides", "→ tide"],
    ["Boats", "→ Boats"],
    ["plan", "plan"],
    ["gone", "gone.html"],
    ["the start", "→ Walks"],
    ["this", "→ tide"],
    ["the end", "→ end"],
    ["Home", "→ Walks"],
  ]);
  expect(chapters.map((doc) => doc.lastChild!.type.name)).toContain("note");
  expect(chapters[4]!.textContent).toContain("By night.");
  expect(arrival!.counts).toEqual({ intact: 7, changed: 1, "left-out": 0, lost: 0, extra: 0 });
  expect(arrival!.links.find(({ words }) => words === "gone")!.where).toBe("guide/index.html, line 1");
});

test("a folder without pages is none, and one with a page that is no text says which", async () => {
  await expect(bring(packed({ "a.txt": "x" }))).rejects.toMatchObject({ code: "format" });
  await expect(bring(packed({ "a.md": new Uint8Array([0, 1, 2]) }))).rejects.toThrow("“a.md” is not a text");
  await isReadOrRefused(packed({ "../../up.html": "<!doctype html><p>up</p>", "index.html": "<p>x" }));
});

test("links to the ids of a page’s outermost elements lead to its chapter, whatever its page begins with", async () => {
  const bytes = packed({
    "index.html": `<html id="home"><body><h1>Walks</h1><p><a href="ways.html#ways">Ways</a>, <a href="low.html#low">low</a></p></body></html>`,
    "ways.html": `<html><body id="ways"><p><a href="index.html#home">Home</a></p><h1>By foot</h1><p>Only.</p></body></html>`,
    "low.html": `<html><body id="low"><p>No heading.</p></body></html>`,
  });
  expect(await linksIn(bytes)).toEqual([
    ["Ways", "→ By foot"],
    ["low", "→ low"],
    ["Home", "→ Walks"],
  ]);
  expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 3, changed: 0 });
});

test("paths with two slashes between folders lead to what is there", async () => {
  const { arrival, pictures, leftOut } = await bring(
    packed({
      "a.html":
        '<!doctype html><h1>Ebb</h1><p><a href="sands//low.html#tide">low</a> <img src="img//dot.png" alt="Dot"></p>',
      "sands/low.html": '<!doctype html><h1>Low</h1><p id="tide">At nine.</p>',
      "img/dot.png": redDot,
    }),
  );
  expect(arrival!.counts).toEqual({ intact: 1, changed: 0, "left-out": 0, lost: 0, extra: 0 });
  expect(pictures).toHaveLength(1);
  expect(leftOut).toEqual([]);
});
