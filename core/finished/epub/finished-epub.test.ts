import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { writeEpub } from "../../publish/formats/epub/write-epub.ts";
import { bookOfEveryFeature } from "../../test/book-of-every-feature.ts";
import { redDot } from "../../test/red-dot.ts";
import { smallEpub } from "../../test/small-epub.ts";
import { chapterAsDocument } from "./chapter-as-document.ts";
import { readEpubPage, type EpubLink, type EpubPage } from "./epub-page.ts";
import { proveSavedEpub } from "./prove-saved.ts";
import { readFinishedEpub } from "./read-finished.ts";
import { saveFinishedEpub } from "./save-finished.ts";
import { withEntries } from "./zip-entries.ts";
import { XhtmlSource } from "./xhtml-source.ts";

const names = { files: new Map<string, string>(), places: new Map<string, string>() };
const huts = `<h1>The huts</h1>
<p id="low">Low &amp; slow: the <em>tide&#160;office</em> knows<a id="spot"/>. See <a href="b.xhtml" title="All ways">ways</a>, <a href='b.xhtml#post'>a <b>red</b> post</a>, <a id="keep" href="#gone">lost</a>, <a href="../plan.pdf">plan</a>.</p>
<h2>Stilts</h2>
<p>Ask <a href="mailto:clerk@causeways.example">the clerk</a> or <a href="https://tides.example/?a=1&amp;b=2">hours</a>. <!-- not the <a href="x">old</a> --></p>
<p><a href="https://maps.example/"><img src="../m.png" alt="Map of the sands"/></a> and <img src="../m.png" alt="Bare"/></p>
<p>One<a epub:type="noteref" href="#n1">1</a></p><aside epub:type="footnote" id="n1"><p>First.</p></aside>
<p><img src="../m.png" alt="Bay" usemap="#bay"/><map name="bay"><area href="b.xhtml#post" alt="Post" shape="rect" coords="0,0,9,9"/><area href="https://bay.example/" alt="Bay" shape="rect" coords="9,9,20,20"/></map></p>`;
const ways = `<h2>Ways</h2><p>By foot only.</p><ul><li id="post">A <a href="a.xhtml#spot">post</a></li></ul><p>No more.</p>`;
const files = { "OPS/plan.pdf": strToU8("%PDF-"), "OPS/m.png": redDot };
const book = (): Uint8Array =>
  smallEpub({ "a.xhtml": huts, "b.xhtml": ways }, files, { "m.png": "image/png" });
const read = (bytes: Uint8Array): EpubPage[] => readFinishedEpub(bytes).pages;
const sourceOf = (bytes: Uint8Array, name: string): string =>
  strFromU8(unzipSync(bytes)[`OPS/text/${name}`]!);
const placeIn = (pages: EpubPage[], name: string): string =>
  pages.flatMap(({ places }) => places).find((place) => place.name === name)!.id;
const changed = (pages: EpubPage[], number: number, to: (links: EpubLink[]) => EpubLink[]): EpubPage[] =>
  pages.map((page) => (page.number === number ? { ...page, links: to(page.links) } : page));
const withLink = (pages: EpubPage[], words: string, part: Partial<EpubLink>): EpubPage[] =>
  pages.map((page) => ({
    ...page,
    links: page.links.map((link) => (link.words === words ? { ...link, ...part } : link)),
  }));
/** A new link on words of a page. */
function on(bytes: Uint8Array, name: string, words: string, part: Partial<EpubLink> = {}): EpubLink {
  const source = new XhtmlSource(sourceOf(bytes, name));
  const from = source.text.indexOf(words);
  return {
    id: "fresh1",
    from: null,
    on: { kind: "words", from, to: from + words.length, element: 0 },
    words: words.replace(/\s+/g, " "),
    hasOwnWords: false,
    isNoteSign: false,
    destination: { kind: "web", address: "https://new.example/?x=1&y=2" },
    description: null,
    href: null,
    ...part,
  };
}
const prove = (came: Uint8Array, saved: Uint8Array, pages: EpubPage[]) =>
  proveSavedEpub(came, saved, pages, names);

describe("an e-book that exists already", () => {
  test("is read with every link, what it says, where it leads, and every place", () => {
    const { facts, pages } = readFinishedEpub(book());
    expect(facts).toMatchObject({ title: "Tides", author: "Orla Tindrum", language: "en", pages: 3 });
    expect(pages.map(({ path, title, isNavigation }) => [path, title, isNavigation])).toEqual([
      ["OPS/nav.xhtml", "Contents", true],
      ["OPS/text/a.xhtml", "The huts", false],
      ["OPS/text/b.xhtml", "Ways", false],
    ]);
    const post = placeIn(pages, "A post");
    expect(pages[1]!.links.map(({ words, destination, on }) => [words, on.kind, destination])).toEqual([
      ["ways", "words", { kind: "place", target: "page-3" }],
      ["a red post", "words", { kind: "place", target: post }],
      ["lost", "words", { kind: "place", target: "nowhere" }],
      ["the clerk", "words", expect.objectContaining({ kind: "email" })],
      ["hours", "words", { kind: "web", address: "https://tides.example/?a=1&b=2" }],
      ["Map of the sands", "picture", { kind: "web", address: "https://maps.example/" }],
      ["1", "words", expect.objectContaining({ kind: "place" })],
      ["Post", "area", { kind: "place", target: post }],
      ["Bay", "area", { kind: "web", address: "https://bay.example/" }],
    ]);
    expect(pages[1]!.untouched).toMatchObject([
      { words: "plan", why: expect.stringContaining("OPS/plan.pdf"), isDead: false },
    ]);
    expect(pages[1]!.links.filter(({ isNoteSign }) => isNoteSign).map(({ words }) => words)).toEqual(["1"]);
    expect(pages[1]!.places.map(({ of, name, fragment }) => [of, name, fragment])).toEqual(
      expect.arrayContaining([
        ["heading", "The huts", null],
        ["element", expect.stringContaining("Low & slow: the tide office knows"), "low"],
        ["element", "#spot", "spot"],
      ]),
    );
    // What is kept is read again as it is.
    expect(pages.map((page) => readEpubPage(JSON.parse(JSON.stringify(page))))).toEqual(pages);
  });

  test("names its places by words that stand apart where they are shown apart", () => {
    const bytes = smallEpub({
      "a.xhtml": `<h1>Low<br/>water</h1><section id="s"><h2>Ways<b> out</b></h2><ul><li>By</li><li>foot</li></ul></section>`,
    });
    expect(read(bytes)[1]!.places.map(({ name }) => name)).toEqual([
      "Low water",
      "Ways out By foot",
      "Ways out",
    ]);
  });

  test("has ways to notes by what they say, too, which no rule asks for words; of them it tells those that lead nowhere", () => {
    const bytes = smallEpub({
      "a.xhtml": `<h1>A</h1><p id="r">One<a href="#n">[1]</a> two <a href="https://a.example/">2</a> <a href="#n">more</a><a href="#gone">3</a></p><p id="n"><a href="#r">↩</a> First.</p>`,
    });
    const page = read(bytes)[1]!;
    expect(page.links.map(({ words, isNoteSign }) => [words, isNoteSign])).toEqual([
      ["[1]", true],
      ["2", false],
      ["more", false],
      ["3", true],
      ["↩", true],
    ]);
    const shown: string[] = [];
    chapterAsDocument(page).descendants(({ marks, text }) => void (marks.length > 0 && shown.push(text!)));
    expect(shown).toEqual(["2", "more", "3"]);
  });

  test("of which nothing is changed is the file that came, byte for byte", () => {
    const bytes = book();
    const saved = saveFinishedEpub(bytes, read(bytes));
    expect(saved).toEqual({ bytes, added: 0, changed: 0, removed: 0 });
    expect(saved.bytes).toBe(bytes);
  });

  test.each<[string, (pages: EpubPage[], bytes: Uint8Array) => EpubPage[], string, string]>([
    [
      "another address",
      (pages) =>
        withLink(pages, "hours", { destination: { kind: "web", address: 'https://b.example/"?c&d' } }),
      '<a href="https://tides.example/?a=1&amp;b=2">hours</a>',
      '<a href="https://b.example/&#34;?c&#38;d">hours</a>',
    ],
    [
      "a description in place of another",
      (pages) => withLink(pages, "ways", { description: "On <foot>" }),
      'title="All ways">ways',
      'title="On &#60;foot&#62;">ways',
    ],
    ["no description", (pages) => withLink(pages, "ways", { description: null }), ' title="All ways"', ""],
    [
      "a description where there was none",
      (pages) => withLink(pages, "a red post", { description: "It’s red" }),
      "<a href='b.xhtml#post'>",
      "<a title=\"It’s red\" href='b.xhtml#post'>",
    ],
    [
      "other words",
      (pages) => withLink(pages, "a red post", { words: "the post & rail" }),
      "a <b>red</b> post</a>",
      "the post &#38; rail<b></b></a>",
    ],
    [
      "another alternative of a picture",
      (pages) => withLink(pages, "Map of the sands", { words: "Chart" }),
      'alt="Map of the sands"',
      'alt="Chart"',
    ],
    [
      "another page",
      (pages) => withLink(pages, "post", { destination: { kind: "place", target: "page-2" } }),
      'href="a.xhtml#spot"',
      'href="a.xhtml"',
    ],
    [
      "no link",
      (pages) => changed(pages, 2, (links) => links.filter(({ words }) => words !== "the clerk")),
      '<a href="mailto:clerk@causeways.example">the clerk</a>',
      "the clerk",
    ],
    [
      "no link, where others may lead",
      (pages) => changed(pages, 2, (links) => links.filter(({ words }) => words !== "lost")),
      '<a id="keep" href="#gone">lost</a>',
      '<a id="keep">lost</a>',
    ],
    [
      "no area",
      (pages) => changed(pages, 2, (links) => links.filter(({ words }) => words !== "Post")),
      '<area href="b.xhtml#post" alt="Post" shape="rect" coords="0,0,9,9"/>',
      "",
    ],
    [
      "a new link on words, with all that they stand in",
      (pages, bytes) => changed(pages, 2, (links) => [...links, on(bytes, "a.xhtml", "tide\u00a0office")]),
      "<em>tide&#160;office</em>",
      '<a href="https://new.example/?x=1&#38;y=2"><em>tide&#160;office</em></a>',
    ],
    [
      "a new link over the end of such words",
      (pages, bytes) =>
        changed(pages, 2, (links) => [
          ...links,
          on(bytes, "a.xhtml", "slow: the tide\u00a0office knows", { description: "D" }),
        ]),
      "slow: the <em>tide&#160;office</em> knows",
      '<a href="https://new.example/?x=1&#38;y=2" title="D">slow: the <em>tide&#160;office</em> knows</a>',
    ],
    [
      "a new link on a picture",
      (pages) => {
        const { elements } = new XhtmlSource(sourceOf(book(), "a.xhtml"));
        const { index, from } = elements.find(({ attributes }) => attributes.get("alt")?.value === "Bare")!;
        const ground = { kind: "picture" as const, from, to: from, element: index };
        return changed(pages, 2, (links) => [...links, on(book(), "a.xhtml", "Bare", { on: ground })]);
      },
      '<img src="../m.png" alt="Bare"/>',
      '<a href="https://new.example/?x=1&#38;y=2"><img src="../m.png" alt="Bare"/></a>',
    ],
    [
      "a heading that has no name yet",
      (pages) =>
        withLink(pages, "lost", { destination: { kind: "place", target: placeIn(pages, "Stilts") } }),
      'href="#gone">lost</a>, <a href="../plan.pdf">plan</a>.</p>\n<h2>',
      'href="#linked-place-9">lost</a>, <a href="../plan.pdf">plan</a>.</p>\n<h2 id="linked-place-9">',
    ],
  ])("is saved with %s, and every other letter stays", (_name, change, before, after) => {
    const bytes = book();
    const pages = change(read(bytes), bytes);
    const saved = saveFinishedEpub(bytes, pages);
    expect(saved.added + saved.changed + saved.removed).toBe(1);
    const [came, now] = ["a.xhtml", "b.xhtml"]
      .map((name) => [sourceOf(bytes, name), sourceOf(saved.bytes, name)])
      .find(([a, b]) => a !== b)!;
    expect(came!.split(before)).toHaveLength(2);
    expect(now).toBe(came!.replace(before, () => after));
    expect(prove(bytes, saved.bytes, pages)).toMatchObject({ complete: true, faults: [], extra: [] });
    // A link that was changed is read again as it was asked to be.
    const told = (all: EpubPage[]) =>
      all.flatMap(({ links }) =>
        links.map(({ words, description, destination }) => [words, description, destination.kind]).sort(),
      );
    expect(told(read(saved.bytes))).toEqual(told(pages));
  });

  test("keeps the bytes of every entry that has nothing to do with it, in their order", () => {
    const bytes = book();
    const pages = withLink(read(bytes), "post", {
      destination: { kind: "web", address: "https://c.example/" },
    });
    const saved = saveFinishedEpub(Buffer.from(bytes), pages).bytes;
    const text = Buffer.from(saved);
    // The records of all entries before the changed one are a prefix; those behind it follow as they were.
    const at = Buffer.from(bytes).indexOf("OPS/text/b.xhtml");
    expect(text.subarray(0, at - 30).equals(Buffer.from(bytes.subarray(0, at - 30)))).toBe(true);
    const behind = Buffer.from(bytes).indexOf("OPS/plan.pdf") - 30;
    const directory = Buffer.from(bytes).indexOf("PK\u0001\u0002");
    expect(text.includes(Buffer.from(bytes.subarray(behind, directory)))).toBe(true);
    // EPUB 3.3, 4.2.3: what it is stands at its beginning, not packed.
    expect(text.subarray(30, 58).toString()).toBe("mimetypeapplication/epub+zip");
  });

  test.each<[string, string, Partial<EpubLink>, RegExp]>([
    ["several paragraphs", "ways, a red post, lost, plan.\nStilts", {}, /in a link already/],
    ["two paragraphs", "The huts\nLow", {}, /several paragraphs/],
    ["half of emphasised words", "office knows", {}, /set apart/],
    ["words that are not there", "nothing of this", {}, /does not have/],
    [
      "a place that is not there",
      "knows",
      { destination: { kind: "place", target: "page-99" } },
      /does not have/,
    ],
    [
      "a file beside it",
      "knows",
      { destination: { kind: "file", file: "f1", fragment: null } as never },
      /no reading program/,
    ],
  ])("refuses a link on or to %s, in a word", (_name, words, part, message) => {
    const bytes = book();
    const link = { ...on(bytes, "a.xhtml", words.replace(/office/, "office")), ...part };
    if (link.on.from < 0) link.on = { ...link.on, from: 3, to: 9 };
    const pages = changed(read(bytes), 2, (links) => [...links, link]);
    expect(() => saveFinishedEpub(bytes, pages)).toThrow(message);
  });

  test("is no worse by the checker of e-books than it was (EPUBCheck’s port, EPUB 3.3)", async () => {
    const bytes = writeEpub(bookOfEveryFeature());
    const pages = read(bytes);
    let i = 0;
    const asked = pages.map((page) => ({
      ...page,
      links: page.isNavigation
        ? page.links
        : page.links.flatMap((link): EpubLink[] => {
            i++;
            if (i % 5 === 0) return [];
            const target = pages[3]!.places[0]!.id;
            if (i % 3 === 0)
              return [{ ...link, destination: { kind: "place" as const, target }, description: "Elsewhere" }];
            return [
              { ...link, destination: { kind: "web" as const, address: "https://é.example/?a=(1)&b=ü" } },
            ];
          }),
    }));
    const saved = saveFinishedEpub(bytes, asked);
    expect(saved.changed).toBeGreaterThan(10);
    const { rows, faults, extra } = prove(bytes, saved.bytes, asked);
    expect([rows.filter(({ verdict }) => verdict !== "intact"), faults, extra]).toEqual([[], [], []]);
    const said = async (file: Uint8Array) =>
      (await EpubCheck.validate(file)).messages.map(({ id }) => id).sort();
    expect(await said(saved.bytes)).toEqual(await said(bytes));
  });

  test("whose page is damaged or not in UTF-8 stays as it is there, and is told", () => {
    const bytes = smallEpub({ "a.xhtml": '<p>One <a href="https://a.example/">two</p>', "b.xhtml": ways });
    const pages = read(bytes);
    expect(pages[1]).toMatchObject({
      stays: expect.stringContaining("not well-formed"),
      links: [],
      untouched: [{ words: "two" }],
    });
    const asked = withLink(pages, "post", { destination: { kind: "web", address: "https://d.example/" } });
    const saved = saveFinishedEpub(bytes, asked);
    expect(prove(bytes, saved.bytes, asked)).toMatchObject({ complete: true });
    expect(sourceOf(saved.bytes, "a.xhtml")).toBe(sourceOf(bytes, "a.xhtml"));
  });

  test("that lies in a folder of its file is refused, with what to do", () => {
    const files = Object.entries(unzipSync(smallEpub({ "a.xhtml": ways })));
    const inFolder = zipSync(Object.fromEntries(files.map(([name, bytes]) => [`tides/${name}`, bytes])));
    expect(() => read(inFolder)).toThrow("Pack what is in that folder");
  });

  test("whose pages are locked is refused", () => {
    const lock = strToU8(
      '<encryption><EncryptedData><CipherData><CipherReference URI="OPS/text/a.xhtml"/></CipherData></EncryptedData></encryption>',
    );
    expect(() => read(smallEpub({ "a.xhtml": ways }, { "META-INF/encryption.xml": lock }))).toThrow(
      /locked by encryption/,
    );
  });

  test("the proof notices what was done to a saved file besides", () => {
    const bytes = book();
    const asked = withLink(read(bytes), "hours", {
      destination: { kind: "web", address: "https://e.example/?a=1%26b" },
    });
    const saved = saveFinishedEpub(bytes, asked).bytes;
    const damage: [string, string, string | RegExp, string][] = [
      ["a word of the text", "a.xhtml", "slow", "fast"],
      ["a comment", "a.xhtml", "<!-- not", "<!-- nor"],
      ["an attribute", "a.xhtml", 'id="low"', 'id="lov"'],
      ["an element", "b.xhtml", /<p>By foot only.<\/p>/, "<div>By foot only.</div>"],
      ["another link’s address", "a.xhtml", "https://maps.example/", "https://mops.example/"],
      ["the changed address", "a.xhtml", "https://e.example/", "https://f.example/"],
      ["a sign that parts an address", "a.xhtml", "a=1%26b", "a=1&#38;b"],
      ["another link’s description", "a.xhtml", "All ways", "All waves"],
      ["a link’s end", "a.xhtml", "knows<a id", 'knows<a href="https://x.example/">.</a><a id'],
      ["a link that is gone", "b.xhtml", /<a href="a.xhtml#spot">post<\/a>/, "post"],
      ["where a link lands", "b.xhtml", 'id="post"', 'id="past"'],
      ["a link that leads to the same page elsewhere", "a.xhtml", "'b.xhtml#post'", "'b.xhtml'"],
      ["the title of the page", "a.xhtml", "<title>x", "<title>y"],
      [
        "how its letters are written",
        "a.xhtml",
        /^(<\?xml[^>]*>)?/,
        '<?xml version="1.0" encoding="iso-8859-1"?>',
      ],
    ];
    const missed = damage.flatMap(([name, file, from, to]) => {
      const path = `OPS/text/${file}`;
      const before = strFromU8(unzipSync(saved)[path]!);
      const text = before.replace(from, to);
      expect(text).not.toBe(before);
      const proof = prove(bytes, withEntries(saved, new Map([[path, strToU8(text)]])), asked);
      return proof.complete ? [name] : [];
    });
    expect(missed).toEqual([]);
    expect(prove(bytes, saved, asked).complete).toBe(true);
    const other = zipSync({ ...unzipSync(saved), "OPS/m.png": strToU8("other") });
    expect(prove(bytes, other, asked).faults).toMatchObject([{ where: "OPS/m.png" }]);
    const less = unzipSync(saved);
    delete less["OPS/plan.pdf"];
    expect(prove(bytes, zipSync(less), asked).complete).toBe(false);
  });

  test("whatever is asked of its links comes out proven, or is refused with a word", () => {
    const bytes = book();
    const pages = read(bytes);
    const places = pages.flatMap((page) => [`page-${page.number}`, ...page.places.map(({ id }) => id)]);
    const text = new XhtmlSource(sourceOf(bytes, "a.xhtml")).text;
    const words = fc
      .string({ unit: "grapheme", minLength: 1, maxLength: 20 })
      .filter((one) => one.trim() === one && !/[\u0000-\u001f\ufffe\uffff\ud800-\udfff]|\s\s/.test(one));
    const destination = fc.oneof(
      fc.constantFrom(...places).map((target) => ({ kind: "place" as const, target })),
      fc
        .webUrl({ withQueryParameters: true, withFragments: true })
        .map((address) => ({ kind: "web" as const, address })),
    );
    const edit = fc.record({
      link: fc.nat(),
      what: fc.nat(4),
      words,
      destination,
      from: fc.nat(text.length - 1),
      length: fc.integer({ min: 1, max: 30 }),
    });
    let saved = 0;
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 6 }), (edits) => {
        const asked = structuredClone(pages);
        for (const [i, { link, what, words, destination, from, length }] of edits.entries()) {
          const { links } = asked[1]!;
          const at = link % links.length;
          const one = links[at]!;
          if (what === 0) links.splice(at, 1);
          else if (what === 1) one.destination = destination;
          else if (what === 2) one.description = words;
          else if (what === 3 && one.hasOwnWords) one.words = words;
          else if (what === 4) {
            const picked = text
              .slice(from, from + length)
              .replace(/\s+/g, " ")
              .trim();
            links.push(
              on(bytes, "a.xhtml", "x", {
                id: `fresh${i}`,
                words: picked,
                destination,
                on: { kind: "words", from, to: Math.min(text.length, from + length), element: 0 },
              }),
            );
          }
          if (links.length === 0) return;
        }
        let out: Uint8Array;
        try {
          out = saveFinishedEpub(bytes, asked).bytes;
        } catch (error) {
          expect((error as { code: string }).code).toMatch(/^(page|changed)$/);
          return;
        }
        saved++;
        expect(prove(bytes, out, asked)).toMatchObject({ complete: true, faults: [], extra: [] });
      }),
      { numRuns: 400, seed: 20_261_127 },
    );
    expect(saved).toBeGreaterThan(150);
  });

  test("gives a place a name that no other place of its page has", () => {
    const bytes = smallEpub({
      "a.xhtml": `<h1>A</h1><h2>B</h2><p id="linked-place-0">One <a href="#linked-place-0">two</a></p>`,
    });
    const asked = withLink(read(bytes), "two", {
      destination: { kind: "place", target: placeIn(read(bytes), "A") },
    });
    const saved = saveFinishedEpub(bytes, asked).bytes;
    expect(sourceOf(saved, "a.xhtml")).toContain('<h1 id="linked-place-0-2">A</h1>');
    expect(sourceOf(saved, "a.xhtml").match(/id="linked-place-0"/g)).toHaveLength(1);
    expect(prove(bytes, saved, asked)).toMatchObject({ complete: true });
  });

  test.each([
    ["Said", 'title="Said"'],
    [null, ""],
  ] as const)(
    "leads a link elsewhere that stayed as it was, described as %s and not as before",
    (description, title) => {
      const bytes = smallEpub({ "a.xhtml": '<p><a href="ftp://a.example/" title="Old">one</a></p>' });
      const asked = read(bytes).map((page) => {
        const [old] = page.untouched;
        if (!old) return page;
        const link = { ...on(bytes, "a.xhtml", "one"), from: old.from, on: old.on, description };
        return { ...page, untouched: [], links: [link] };
      });
      const saved = saveFinishedEpub(bytes, asked).bytes;
      expect(sourceOf(saved, "a.xhtml")).not.toContain("Old");
      expect(sourceOf(saved, "a.xhtml")).toContain(title);
      expect(prove(bytes, saved, asked)).toMatchObject({ complete: true });
    },
  );

  test("that is damaged is read, or refused with a word", () => {
    const bytes = writeEpub(bookOfEveryFeature());
    const shares = fc.double({ min: 0, max: 1, noNaN: true });
    let refused = 0;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(shares, fc.nat(255)), { minLength: 1, maxLength: 40 }),
        fc.option(shares),
        (damage, cut) => {
          const damaged = bytes.slice(0, cut === null ? undefined : Math.floor(cut * bytes.length));
          for (const [at, byte] of damage) damaged[Math.floor(at * damaged.length)] = byte;
          try {
            const pages = read(damaged);
            saveFinishedEpub(
              damaged,
              pages.map((page) => ({ ...page, links: page.links.slice(1) })),
            );
          } catch (error) {
            refused++;
            expect((error as { code?: string }).code).toMatch(/^(format|encrypted|page|changed)$/);
          }
        },
      ),
      { numRuns: 200, seed: 20_261_127 },
    );
    expect(refused).toBeGreaterThan(100);
  });
});
