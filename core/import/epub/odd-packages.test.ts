import { describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { proveSavedEpub } from "../../finished/epub/prove-saved.ts";
import { readFinishedEpub } from "../../finished/epub/read-finished.ts";
import { saveFinishedEpub } from "../../finished/epub/save-finished.ts";
import { bring, linksIn } from "../../test/brought.ts";
import { redDot } from "../../test/red-dot.ts";
import { smallEpub } from "../../test/small-epub.ts";
import type { ImportedManuscript } from "../import-manuscript.ts";
import { unpacked, writtenNames } from "../containers.ts";
import { withoutEncoding } from "../../test/without-encoding.ts";
import { mimetypeOfFlat } from "../odt/flat-document.ts";
import { withoutDocumentType } from "./named-letters.ts";

const tides = `<h1>Tides</h1><p>Low, see <a href="b.xhtml#post">the post</a>.</p>`;
const ways = `<h1 id="post">Ways</h1><p>By <a href="a.xhtml">low water</a>.</p>`;
const pages = { "a.xhtml": tides, "b.xhtml": ways };

type Files = Record<string, Uint8Array>;

/** An e-book of two pages with something changed in its files. */
function changed(change: (files: Files) => Files | void, given: Record<string, string> = pages): Uint8Array {
  const files: Files = { ...unzipSync(smallEpub(given)) };
  return zipSync(change(files) ?? files);
}

function replaceIn(files: Files, path: string, ...pairs: (readonly [string | RegExp, string])[]): void {
  let text = strFromU8(files[path]!);
  for (const [was, is] of pairs) {
    expect(text).toMatch(was);
    text = text.replace(was, is);
  }
  files[path] = strToU8(text);
}

const textsOf = ({ chapters }: ImportedManuscript): string[][] =>
  chapters.map((doc) => doc.children.map((block) => block.textContent));
const usual = [
  ["Tides", "Low, see the post."],
  ["Ways", "By low water."],
];

describe("an e-book is read", () => {
  test.each<[string, (files: Files) => Files | void]>([
    [
      "whose pages are in UTF-16, as EPUB lets them be",
      (files) => {
        const text = strFromU8(files["OPS/text/a.xhtml"]!).replace('"1.0"', '"1.0" encoding="UTF-16"');
        files["OPS/text/a.xhtml"] = new Uint8Array(Buffer.from(`\ufeff${text}`, "utf16le"));
      },
    ],
    [
      "whose package is in UTF-16",
      (files) => {
        const text = strFromU8(files["OPS/book.opf"]!);
        files["OPS/book.opf"] = new Uint8Array(Buffer.from(`\ufeff${text}`, "utf16le"));
      },
    ],
    [
      "that names another format of itself before its package",
      (files) => {
        const other = '<rootfile full-path="tides.pdf" media-type="application/pdf"/>';
        replaceIn(files, "META-INF/container.xml", ["<rootfiles>", `<rootfiles>${other}`]);
        files["tides.pdf"] = strToU8("%PDF-1.7");
      },
    ],
    [
      "whose pages say the types of version 2",
      (files) =>
        replaceIn(files, "OPS/book.opf", [/(a\.xhtml" media-type=)"[^"]*"/, '$1"text/x-oeb1-document"']),
    ],
    [
      "whose package and files write a letter and its mark in two ways",
      ({ "OPS/text/b.xhtml": page, ...files }) => {
        replaceIn(files, "OPS/book.opf", ["text/b.xhtml", "text/b%C3%A9.xhtml"]);
        replaceIn(files, "OPS/text/a.xhtml", ["b.xhtml", "b%C3%A9.xhtml"]);
        return { ...files, "OPS/text/be\u0301.xhtml": page! };
      },
    ],
    [
      "of which an item says what to read in its place",
      (files) => {
        const item = '<item id="plan" href="plan.pdf" media-type="application/pdf" fallback="p1"/>';
        replaceIn(
          files,
          "OPS/book.opf",
          ["</manifest>", `${item}</manifest>`],
          ['idref="p1"', 'idref="plan"'],
        );
        files["OPS/plan.pdf"] = strToU8("%PDF-1.7");
      },
    ],
    [
      "whose fonts alone are locked",
      (files) => {
        files["META-INF/encryption.xml"] = strToU8(
          '<encryption><CipherReference URI="OPS/tide.otf"/></encryption>',
        );
      },
    ],
  ])("%s", async (_, change) => {
    const came = await bring(changed(change));
    expect(textsOf(came)).toEqual(usual);
    expect(came.arrival!.counts).toMatchObject({ intact: 2, changed: 0, lost: 0, extra: 0 });
  });

  test("with the names that a page declares for itself", async () => {
    const bytes = changed((files) =>
      replaceIn(
        files,
        "OPS/text/a.xhtml",
        ["<!DOCTYPE html>", '<!DOCTYPE html [<!ENTITY office "The <em>tide</em> office"><!-- ]> -->]>'],
        ["Low, see", "&office;&nbsp;&mdash; see"],
      ),
    );
    const came = await bring(bytes);
    expect(textsOf(came)[0]).toEqual(["Tides", "The tide office\u00a0— see the post."]);
    expect(came.arrival!.counts).toMatchObject({ intact: 2, changed: 0, lost: 0, extra: 0 });
  });

  test("with the areas of image maps, and pictures that are in a page itself", async () => {
    const data = `data:image/png;base64,${Buffer.from(redDot).toString("base64")}`;
    const map = `<p><map name="m"><area href="b.xhtml#post" shape="rect" coords="0,0,4,4" alt="Post"/></map><img src="${data}" usemap="#m" alt="Bay"/></p>`;
    const bytes = smallEpub({ ...pages, "a.xhtml": tides + map });
    const came = await bring(bytes);
    expect(came.pictures).toHaveLength(1);
    expect(came.arrival!.counts).toMatchObject({ intact: 3, changed: 0, lost: 0, extra: 0 });
  });

  test("with what cannot be read told", async () => {
    const bytes = changed((files) =>
      replaceIn(
        files,
        "OPS/book.opf",
        [
          "</manifest>",
          '<item id="gone" href="gone.xhtml" media-type="application/xhtml+xml"/><item id="film" href="film.mp4" media-type="video/mp4"/></manifest>',
        ],
        ["</spine>", '<itemref idref="gone"/><itemref idref="film"/></spine>'],
      ),
    );
    const { leftOut } = await bring(bytes);
    expect(leftOut.map(({ where }) => where)).toEqual(["OPS/gone.xhtml", "OPS/film.mp4"]);
  });
});

test("an e-book whose pages are locked is refused with what to do", async () => {
  const bytes = changed((files) => {
    files["OPS/text/a.xhtml"] = Uint8Array.from({ length: 300 }, (_, i) => (i * 97) & 0xff);
    files["META-INF/encryption.xml"] = strToU8(
      '<encryption><CipherReference URI="OPS/text/a.xhtml"/></encryption>',
    );
  });
  await expect(bring(bytes)).rejects.toThrow(/locked.*Bring one without a lock/);
});

describe("links to the ids of a page’s outermost elements lead to its top", () => {
  const named = {
    "a.xhtml": `<h1>Tides</h1><p>See <a href="b.xhtml#whole">ways</a> and <a href="b.xhtml#page">them</a>.</p>`,
    "b.xhtml": `<h1>Ways</h1><p>By foot.</p>`,
  };
  const bytes = changed(
    (files) =>
      replaceIn(files, "OPS/text/b.xhtml", ["<body>", '<body id="whole">'], ["<html ", '<html id="page" ']),
    named,
  );

  test("of one that is brought in", async () => {
    expect(await linksIn(bytes)).toEqual([
      ["ways", "→ Ways"],
      ["them", "→ Ways"],
    ]);
    expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 2, changed: 0 });
  });

  test("of one that is finished, and they stay as they are when others change", () => {
    const { pages: read } = readFinishedEpub(bytes);
    const [, a] = read;
    expect(a!.links.map(({ destination }) => destination)).toEqual([
      { kind: "place", target: "page-3" },
      { kind: "place", target: "page-3" },
    ]);
    const asked = read.map((page) => ({
      ...page,
      links: page.links.map((link) => ({ ...link, description: "All ways" })),
    }));
    const saved = saveFinishedEpub(bytes, asked).bytes;
    expect(strFromU8(unzipSync(saved)["OPS/text/a.xhtml"]!)).toContain('href="b.xhtml#whole"');
    expect(proveSavedEpub(bytes, saved, asked, { files: new Map(), places: new Map() }).complete).toBe(true);
  });
});

describe("a finished e-book that others packed", () => {
  const described = (bytes: Uint8Array) => {
    const asked = readFinishedEpub(bytes).pages.map((page) => ({
      ...page,
      links: page.links.map((link) => ({ ...link, description: "There" })),
    }));
    const saved = saveFinishedEpub(bytes, asked).bytes;
    return { saved, proof: proveSavedEpub(bytes, saved, asked, { files: new Map(), places: new Map() }) };
  };

  test.each<[string, (files: Files) => Uint8Array]>([
    [
      "with folders parted as on Windows",
      (files) =>
        zipSync(
          Object.fromEntries(Object.entries(files).map(([name, one]) => [name.replaceAll("/", "\\"), one])),
        ),
    ],
    ["with names in UTF-8 that do not say so", (files) => withoutEncoding(files)],
  ])("%s keeps their names byte for byte when it is saved", (_, pack) => {
    const { "OPS/text/b.xhtml": b, ...files } = unzipSync(smallEpub(pages));
    replaceIn(files, "OPS/book.opf", ["text/b.xhtml", "text/h%C3%B6he.xhtml"]);
    replaceIn(files, "OPS/text/a.xhtml", ["b.xhtml", "h%C3%B6he.xhtml"]);
    replaceIn(files, "OPS/nav.xhtml", ["b.xhtml", "h%C3%B6he.xhtml"]);
    const bytes = pack({ ...files, "OPS/text/höhe.xhtml": b! });
    const { saved, proof } = described(bytes);
    expect(proof).toMatchObject({ complete: true, intact: 4 });
    expect(writtenNames(saved)).toEqual(writtenNames(bytes));
    expect(strFromU8(unpacked(saved)["OPS/text/höhe.xhtml"]!)).toContain('title="There"');
    // Its own record tells an entry's name as the directory does.
    const all = Buffer.from(saved);
    const isThereTwice = (name: Buffer): boolean =>
      all.includes(name) && all.indexOf(name) !== all.lastIndexOf(name);
    for (const name of writtenNames(bytes))
      expect([Buffer.from(name, "latin1"), Buffer.from(name)].some(isThereTwice)).toBe(true);
  });

  test("has links into pages that stay as they are, and none of them is told as leading nowhere", () => {
    const bytes = smallEpub({ ...pages, "b.xhtml": '<h1 id="post">Ways</h1><p>By <br> foot.</p>' });
    const [, a, b] = readFinishedEpub(bytes).pages;
    expect(b!.stays).toContain("not well-formed");
    expect(a!.links.map(({ destination }) => destination)).toEqual([
      { kind: "place", target: b!.places[0]!.id },
    ]);
    expect(described(bytes).proof).toMatchObject({ complete: true, intact: 3 });
  });

  test("reads what parts lines in an address as a blank, in both readers", async () => {
    const bytes = smallEpub({ "a.xhtml": '<h1>Tides</h1><p><a href="https://tides.example/a\nb">b</a></p>' });
    const web = { kind: "web", address: "https://tides.example/a%20b" };
    expect(readFinishedEpub(bytes).pages[1]!.links[0]!.destination).toEqual(web);
    expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 1, changed: 0 });
    expect(described(bytes).proof.complete).toBe(true);
  });
});

test("a document type that never ends is read once, not in every way that it could be", () => {
  const open = `<!DOCTYPE html [${"<!-- low ' water -->".repeat(5_000)}`;
  expect(withoutDocumentType(`${open}<html/>`)).toBe(`${open}<html/>`);
  expect(mimetypeOfFlat(strToU8(`${"<!-- low water -->".repeat(500)}<html/>`))).toBe("");
});
