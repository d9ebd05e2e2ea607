import { describe, expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { strFromU8, unzipSync } from "fflate";
import { SaxesParser } from "saxes";
import type { Conventions } from "../manuscript/conventions.ts";
import { compareLinks } from "../proof/compare.ts";
import { manuscriptLinks } from "../proof/manuscript-links.ts";
import { readEpub } from "./formats/epub/read-back.ts";
import { readWebPage } from "./formats/web/read-back.ts";
import {
  bookOfManyPlaces,
  bookOfOddPlaces,
  bookOfPlaces,
  bookWith,
  chapter,
  text,
} from "../test/book-of-places.ts";
import { schema } from "../manuscript/schema.ts";
import { defaultLooks } from "../manuscript/looks.ts";
import { writeDocx } from "./formats/docx/write-docx.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { writeWebPage } from "./formats/web/web-page.ts";

interface Page {
  /** The words of each element that has an id, and of those that follow until the next. */
  ids: Map<string, string>;
  links: {
    href: string;
    role: string | undefined;
    type: string | undefined;
    label: string | undefined;
    text: string;
  }[];
}

/** Parses XHTML as XML, apart from all that wrote it. */
function parse(xml: string): Page {
  const page: Page = { ids: new Map(), links: [] };
  const open: Page["links"] = [];
  let last: string | null = null;
  const parser = new SaxesParser();
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", ({ name, attributes }) => {
    const given = attributes as Record<string, string>;
    if (given["id"]) page.ids.set((last = given["id"]), "");
    if (name !== "a") return;
    open.push({
      href: given["href"]!,
      role: given["role"],
      type: given["epub:type"],
      label: given["aria-label"],
      text: "",
    });
  });
  parser.on("text", (words) => {
    if (last) page.ids.set(last, page.ids.get(last)! + words);
    for (const link of open) link.text += words;
  });
  parser.on("closetag", ({ name }) => {
    if (name === "a") page.links.push(open.pop()!);
  });
  parser.write(xml).close();
  return page;
}

const pagesOf = (bytes: Uint8Array): Map<string, Page> =>
  new Map(
    Object.entries(unzipSync(bytes))
      .filter(([name]) => name.endsWith(".xhtml"))
      .map(([name, content]) => [name.replace("EPUB/", ""), parse(strFromU8(content))]),
  );

const withNotesAt = (notesAt: Conventions["notesAt"]) => {
  const book = bookOfPlaces();
  return { ...book, conventions: { ...book.conventions, notesAt } };
};

describe.each(["page", "chapter", "book"] as const)("with notes at the end of the %s", (notesAt) => {
  const book = withNotesAt(notesAt);
  const epub = writeEpub(book);
  const pages = pagesOf(epub);
  const all = [...pages].flatMap(([file, { links }]) => links.map((link) => ({ file, ...link })));

  test("the e-book passes EPUBCheck", async () => {
    const { messages } = await EpubCheck.validate(epub);
    expect(messages.filter(({ severity }) => severity !== "info" && severity !== "usage")).toEqual([]);
  });

  test("every link inside it lands on an element that is there, and no id is double", () => {
    for (const { file, href } of all) {
      const [page, id] = href.split("#");
      const landing = pages.get(page === "" ? file : page!)!;
      expect(id === undefined || landing.ids.has(id)).toBe(true);
    }
    const ids = [...pages].flatMap(([, page]) => [...page.ids.keys()]);
    expect(new Set(ids).size).toBe(ids.length);
  });

  // EPUB Structural Semantics and DPUB-ARIA 1.1.
  test("notes lead there and back, once for each reference, with a name that can be heard", () => {
    const there = all.filter(({ role }) => role === "doc-noteref");
    const back = all.filter(({ role }) => role === "doc-backlink");
    expect(there.map(({ type, text: words }) => [type, words])).toEqual([
      ["noteref", "1"],
      ["noteref", "1"],
      ["noteref", "2"],
      ["noteref", "1"],
    ]);
    expect(back.map(({ text: words, label }) => [words, label])).toEqual([
      ["↩", "Back to the text 1"],
      ["↩", "Back to the text 2"],
      ["↩", "Back to the text"],
      ["↩", "Back to the text"],
    ]);
    const files = [...pages].filter(([, page]) => page.ids.has("clock")).map(([file]) => file);
    expect(files).toEqual([notesAt === "book" ? "notes.xhtml" : "chapter-001.xhtml"]);
  });

  test("both proofs have everything but the cross-reference whose target is gone", () => {
    for (const reading of [readEpub(epub), readWebPage(writeWebPage(book))]) {
      const proof = compareLinks(manuscriptLinks(book, reading), reading);
      const wrong = proof.rows.filter(({ verdict }) => verdict !== "intact");
      expect(wrong.map(({ link, note }) => [link.id, note])).toEqual([
        ["s7", "The place that it follows is gone."],
      ]);
      expect(proof).toMatchObject({ extra: [], made: { intact: 20, total: 20 } });
    }
  });
});

test("places, notes and what follows from them are proven wherever they stand", async () => {
  for (const notesAt of ["page", "book"] as const) {
    const odd = bookOfOddPlaces();
    const book = { ...odd, conventions: { ...odd.conventions, headings: 4, notesAt } };
    const epub = writeEpub(book);
    const { messages } = await EpubCheck.validate(epub);
    expect(messages.filter(({ severity }) => severity !== "info" && severity !== "usage")).toEqual([]);
    for (const reading of [readEpub(epub), readWebPage(writeWebPage(book))])
      expect(compareLinks(manuscriptLinks(book, reading), reading)).toMatchObject({
        complete: true,
        total: 10,
        made: { intact: 13, total: 13 },
      });
  }
});

test("the author's own words lead back from a note, and are its name", () => {
  const book = bookOfPlaces();
  book.conventions = { ...book.conventions, returnWords: "to the walk" };
  const back = [...pagesOf(writeEpub(book)).values()]
    .flatMap(({ links }) => links)
    .filter(({ role }) => role === "doc-backlink");
  expect(back.map(({ text: words, label }) => [words, label])).toEqual([
    ["to the walk", "to the walk 1"],
    ["to the walk", "to the walk 2"],
    ["to the walk", undefined],
    ["to the walk", undefined],
  ]);
});

test("a gap is seen where a cross-reference has nothing to say", () => {
  const files = unzipSync(writeEpub(bookOfPlaces()));
  const questions = strFromU8(files["EPUB/chapter-002.xhtml"]!);
  expect(questions).toContain('<span class="gap">[?]</span>');
  expect(questions).toMatch(/href="chapter-001.xhtml#bare" data-reference="number" id="\w+">Table 1<\/a>/);
  // No pages here: the reference that tells a page falls back on words.
  expect(questions).toMatch(/href="chapter-001.xhtml#way" data-reference="[a-z-]+" id="\w+">The way<\/a>/);
  expect(strFromU8(files["EPUB/chapter-001.xhtml"]!)).toContain(
    '<figcaption id="bare"><span class="number" data-made="">Table 1 </span>How long it lies bare</figcaption>',
  );
});

test("each of 200 places is landed on exactly, in the e-book and on the web page", () => {
  const { book, places } = bookOfManyPlaces(200);
  expect(places).toHaveLength(200);
  const pages = pagesOf(writeEpub(book));
  const links = pages.get("chapter-011.xhtml")!.links;
  expect(links).toHaveLength(200);
  const web = parse(
    strFromU8(writeWebPage(book))
      .replace("<!DOCTYPE html>", "")
      .replace(/<style>.*?<\/style>/s, ""),
  );
  places.forEach(({ id, word }, i) => {
    const { href, text: words } = links[i]!;
    const [page, target] = href.split("#");
    expect([words, target]).toEqual([`to ${word}`, id]);
    const lands = pages.get(page!)!.ids.get(id)!;
    // What stands at the element begins with the place's own word, but for the numbers before it.
    expect(lands.replace(/^[\s\d.]*(?:Table \d+)?[↩\s]*/, "")).toMatch(new RegExp(`^${word}\\b`));
    expect(web.ids.get(id)).toContain(word);
    expect(web.links.some((link) => link.href === `#${id}` && link.text === `to ${word}`)).toBe(true);
  });
});

describe("looks", () => {
  const destination = { kind: "web" as const, address: "https://tides.example/" };
  const link = (more: object) =>
    schema.text("the office", [schema.mark("link", { id: "l", destination, ...more })]);
  const book = (more: object) =>
    bookWith([chapter("c", "C", text(link(more)))], {
      looks: { ...defaultLooks, web: { ...defaultLooks.web, hover: "underlined" } },
    });

  test("a link that looks like text stays a link", () => {
    const page = strFromU8(unzipSync(writeEpub(book({ asText: true })))["EPUB/chapter-001.xhtml"]!);
    expect(page).toContain(
      '<a class="as-text" href="https://tides.example/" id="l" data-look="text">the office</a>',
    );
  });

  test("a link's own look goes before that of its kind, by a rule of its own", () => {
    const look = { colour: "#7A1FA2", underline: "dotted", bold: true };
    const files = unzipSync(writeEpub(book({ look })));
    expect(strFromU8(files["EPUB/chapter-001.xhtml"]!)).toContain(
      '<a class="web own-7a1fa2-dotted-bold" href="https://tides.example/" id="l" data-look=',
    );
    const sheet = strFromU8(files["EPUB/style.css"]!);
    const rule =
      "a.own-7a1fa2-dotted-bold { color: #7A1FA2; text-decoration: underline dotted; font-weight: bold; }";
    // Of equal weight, so the later one holds.
    expect(sheet.indexOf(rule)).toBeGreaterThan(sheet.indexOf("a.web {"));
    expect(strFromU8(unzipSync(writeEpub(book({ look: null })))["EPUB/style.css"]!)).not.toContain("own-");
  });

  // WCAG 2.2 SC 3.2.5, technique G201.
  test("a new window is told in the link's name, on web pages alone", () => {
    const html = strFromU8(writeWebPage(book({ newWindow: true })));
    expect(html).toContain(
      'target="_blank" rel="noopener" aria-label="the office (opens in a new window)">the office</a>',
    );
    expect(html).toContain("a.web:hover { text-decoration: underline; }");
    const epub = strFromU8(unzipSync(writeEpub(book({ newWindow: true })))["EPUB/chapter-001.xhtml"]!);
    expect(epub).not.toContain("_blank");
  });
});

test("the same book gives the same web page, and nothing an author writes becomes markup", () => {
  const nasty = bookWith([chapter("c", "<script>", text("</p><b>"))], { title: "<i>&" });
  expect(writeWebPage(nasty)).toEqual(writeWebPage(nasty));
  const html = strFromU8(writeWebPage(nasty));
  expect(html).not.toMatch(/<script|<b>|<i>/);
  expect(html).toContain("&lt;script&gt;");
});

test("a text document bears more places than its library has room for, and tells their names", async () => {
  const many = 130_000;
  const paragraphs = Array.from({ length: many / 100 }, (_, i) => {
    const anchors = Array.from({ length: 100 }, (_, k) =>
      schema.node("anchor", { id: `post-${i * 100 + k}`, name: `Post ${i * 100 + k}` }),
    );
    return schema.node("paragraph", null, [...anchors, schema.text("Sand.")]);
  });
  const { bytes } = await writeDocx(bookWith([chapter("sands", "Sands", ...paragraphs)]), "sands.docx");
  const properties = strFromU8(unzipSync(bytes)["docProps/custom.xml"]!);
  expect(properties.match(/<property /g)!.length).toBe(many + 1);
  expect(properties).toContain('name="vennet-anchor-post-129999"><vt:lpwstr>Post 129999</vt:lpwstr>');
});
