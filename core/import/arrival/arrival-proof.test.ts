import { describe, expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { linkUses } from "../../manuscript/links.ts";
import { schema } from "../../manuscript/schema.ts";
import { writeDocx } from "../../publish/formats/docx/write-docx.ts";
import { writeEpub } from "../../publish/formats/epub/write-epub.ts";
import { writeMarkdown } from "../../publish/formats/markdown/write-markdown.ts";
import { writeWebPage } from "../../publish/formats/web/web-page.ts";
import { openExport } from "../../proof/exported-folder.ts";
import { bookOfEveryFeature } from "../../test/book-of-every-feature.ts";
import { indexOf } from "../../manuscript/book.ts";
import { bookWith } from "../../test/book-of-places.ts";
import { bring } from "../../test/brought.ts";
import { redDot } from "../../test/red-dot.ts";
import { smallEpub } from "../../test/small-epub.ts";
import { importManuscript, type ImportedManuscript } from "../import-manuscript.ts";
import { proveArrival, type ArrivalProof } from "./arrival-proof.ts";
import type { FileLink } from "./file-links.ts";

const brought = async (text: string): Promise<ArrivalProof> =>
  (await bring(new TextEncoder().encode(text))).arrival!;
const told = ({ links }: ArrivalProof): string[][] =>
  links
    .filter(({ verdict }) => verdict !== "intact")
    .map(({ verdict, sort, words, href }) => [verdict, sort, words, href]);

describe("links of a file that arrived", () => {
  test("are intact: outward, to headings by their words, over pictures, in notes", async () => {
    const { counts, links } = await brought(
      '# Tides\n\n[the office](https://tides.example/ "By day") www.tides.example [low](#low-water)[^1]\n\n' +
        "## Low water\n\n[![Map](m.png)](https://m.example/)\n\n" +
        "[^1]: See [n](https://n.example/).\n\n[^2]: Nobody calls [it](https://o.example/).",
    );
    expect(links.map(({ verdict, words }) => `${verdict} ${words}`)).toEqual([
      "intact the office",
      "intact www.tides.example",
      "intact low",
      "intact Map",
      "intact n",
      "intact it",
    ]);
    expect(counts).toEqual({ intact: 6, changed: 0, "left-out": 0, lost: 0, extra: 0 });
  });

  test("are intact where they lead to a formula", async () => {
    const math = '<math xmlns="http://www.w3.org/1998/Math/MathML"><mi>ab</mi></math>';
    const proof = await brought(
      `<html><body><h1>T</h1><p>See <a href="#f">it</a>.</p><p>By <span id="f">${math}</span> goes on.</p>`,
    );
    expect(proof.counts).toEqual({ intact: 1, changed: 0, "left-out": 0, lost: 0, extra: 0 });
  });

  test("are told by sort where they are not: beside the file, to no place, where no book can lead, without words", async () => {
    const proof = await brought(
      "# T\n\n[plan](plan.pdf) [map](map.pdf) [gone](#gone) [x](javascript:alert) [](https://a.example/)",
    );
    expect(told(proof)).toEqual([
      ["changed", "Links to files that were not brought along", "plan", "plan.pdf"],
      ["changed", "Links to files that were not brought along", "map", "map.pdf"],
      ["changed", "Links to places that the file does not have", "gone", "#gone"],
      ["left-out", "Links that a book cannot hold", "x", "javascript:alert"],
      ["left-out", "Links without words", "", "https://a.example/"],
    ]);
    expect(proof.links.map(({ mend }) => mend)).toEqual([
      "base-address",
      "base-address",
      "places",
      null,
      null,
    ]);
  });

  test("all arrive from what Vennet itself writes, whichever format it is in", async () => {
    const book = bookOfEveryFeature();
    for (const bytes of [
      openExport((await writeDocx(book, "walks.docx")).bytes).main,
      openExport(writeMarkdown(book, "walks.md").bytes).main,
      writeWebPage(book),
      writeEpub(book),
    ]) {
      const { arrival } = await bring(bytes);
      expect(arrival!.links.length).toBeGreaterThan(40);
      expect(
        told(arrival!).filter(([, sort]) => !/not brought along|Links that a book cannot hold/.test(sort!)),
      ).toEqual([]);
    }
  });
});

describe("what an importer does wrong is found, link by link", () => {
  const fileLink = (words: string, href: string, landing: string | null = null): FileLink => ({
    words,
    showsPicture: false,
    isJump: true,
    href,
    title: null,
    where: "line 3",
    at: 0,
    to: null,
    landing,
    apart: null,
  });
  const link = (id: string, words: string, destination: object, description: string | null = null): Node =>
    schema.text(words, [schema.mark("link", { id, destination, description })]);
  const chapter = (...words: Node[]): Node =>
    schema.node("doc", null, [
      schema.node("title", { id: "sands" }, [schema.text("Sands")]),
      schema.node("paragraph", null, words),
      schema.node("heading", { id: "boats", level: 1 }, [schema.text("Boats")]),
    ]);
  const web = { kind: "web", address: "https://a.example/" };
  const judged = (asked: FileLink[], ...words: Node[]): string[][] =>
    told(
      proveArrival(asked, {
        ownTitles: new Set(),
        chapters: [chapter(...words)],
        index: indexOf(bookWith([chapter(...words)])),
        leftOut: [],
        baseAddress: null,
        companions: new Map(),
      }),
    ).map(([verdict, sort]) => [verdict!, sort!]);

  test.each<[string, FileLink, Node, string[][]]>([
    [
      "none came",
      fileLink("a", "https://a.example/"),
      schema.text("a"),
      [["lost", "Links that did not arrive"]],
    ],
    [
      "another address",
      fileLink("a", "https://a.example/"),
      link("l", "a", { kind: "web", address: "https://b.example/" }),
      [["changed", "Links that lead elsewhere"]],
    ],
    [
      "a word less",
      fileLink("a boat", "https://a.example/"),
      link("l", "boat", web),
      [["changed", "Links with other words"]],
    ],
    [
      "what is said of it",
      { ...fileLink("a", "https://a.example/"), title: "By day" },
      link("l", "a", web),
      [["changed", "Links with another description"]],
    ],
    [
      "another place",
      fileLink("a", "#boats", "boats"),
      link("l", "a", { kind: "place", target: "sands" }),
      [["changed", "Links that land elsewhere"]],
    ],
    ["the place", fileLink("a", "#boats", "boats"), link("l", "a", { kind: "place", target: "boats" }), []],
  ])("%s", (_, asked, given, expected) => {
    expect(judged([asked], given)).toEqual(expected);
  });

  test("one that the file does not have, and of two alike only the one that is missing", () => {
    expect(judged([], link("l", "a", web))).toEqual([["extra", "Links that the file does not have"]]);
    const twice = fileLink("a", "https://a.example/");
    expect(judged([twice, twice], link("l", "a", web))).toEqual([["lost", "Links that did not arrive"]]);
  });
});

// DPUB-ARIA 1.1: a doc-backlink leads back from where it stands, which some programs say of headings and their contents.
test("headings that lead back to their entry in contents are links, and ways back from notes are not", async () => {
  const body =
    '<p><a id="c1" href="#low">Low water</a><a role="doc-noteref" href="#n1" id="r1">1</a></p><section id="low"><h2><a role="doc-backlink" href="#c1">Low water</a></h2><p>Bare.</p></section><aside role="doc-footnote" id="n1"><p>First. <a role="doc-backlink" href="#r1">back</a></p></aside>';
  for (const bytes of [
    new TextEncoder().encode(`<!DOCTYPE html><title>T</title><h1>Tides</h1>${body}`),
    smallEpub({ "a.xhtml": `<h1>Tides</h1>${body}` }),
  ]) {
    const { arrival } = await bring(bytes);
    expect(arrival!.counts).toMatchObject({ changed: 0, "left-out": 0, lost: 0, extra: 0 });
    // Signs of notes, of which one of the readers tells.
    const words = arrival!.links.map((link) => link.words).filter((said) => said !== "1");
    expect(words).toEqual(["Low water", "Low water"]);
  }
});

describe("notes of a page", () => {
  const note = (id: string, sign: string, words: string): string =>
    `<div class="footnote" id="n-${id}"><p><a href="#r-${id}"><sup>${sign}</sup></a> ${words}</p></div>`;
  const sign = (id: string, shown: string): string =>
    `<a href="#n-${id}" id="r-${id}"><sup>${shown}</sup></a>`;

  test("are told as notes, also behind links without words", async () => {
    const proof = await brought(
      `<!doctype html><h1>Ebb</h1><p>By <a href="#bay"></a>, cross${sign("ebb", "[1]")}.</p><p id="bay">The bay.</p>` +
        `${note("ebb", "[1]", "At low water.")}`,
    );
    expect(told(proof)).toEqual([
      ["left-out", "Links without words", "", "#bay"],
      ["left-out", "Ways back from notes", "[1]", "#r-ebb"],
    ]);
  });

  test("are told as notes where a letter calls them, twice over", async () => {
    const proof = await brought(
      `<!doctype html><h1>Ebb</h1><table><tr><td>Ferry${sign("ebb", "[a]")}</td><td>Causeway <a href="#n-ebb"><sup>[a]</sup></a></td></tr></table>` +
        `${note("ebb", "[a]", "But only at low water.")}`,
    );
    expect(told(proof)).toEqual([["left-out", "Ways back from notes", "[a]", "#r-ebb"]]);
  });
});

test("links of a page to itself by its file’s name lead to its places", async () => {
  const read = (name: string, text: string) =>
    importManuscript(
      { name, bytes: new TextEncoder().encode(text) },
      { fallbackTitle: "Walks", baseAddress: null, pictureFor: () => null },
    );
  const links =
    '<a href="low%20water.html#ebb">ebb</a> <a href="./low water.html">top</a> <a href="high.html#ebb">high</a>';
  const map = `<img alt="Map" src="data:image/png;base64,${redDot.toString("base64")}" usemap="#m"><map name="m"><area shape="rect" coords="0,0,9,9" alt="Post" href="low water.html#ebb"></map>`;
  const page = await read(
    "low water.html",
    `<!doctype html><h1>Low</h1><p>${links} ${map}</p><h2 id="ebb">The ebb</h2>`,
  );
  const text = await read("low.md", "# Low\n\n[ebb](low.md#ebb) [top](low.md) [high](high.md)\n\n## Ebb\n");
  expect(told(page.arrival!)).toEqual([
    ["changed", "Links to files that were not brought along", "high", "high.html#ebb"],
  ]);
  expect(told(text.arrival!)).toEqual([
    ["changed", "Links to files that were not brought along", "high", "high.md"],
  ]);
  const kinds = ({ chapters }: ImportedManuscript): string[] =>
    chapters.flatMap((doc) => linkUses(doc)).map(({ destination }) => destination.kind);
  expect(kinds(page)).toEqual(["place", "place", "file", "place"]);
  expect(kinds(text)).toEqual(["place", "place", "file"]);
});
