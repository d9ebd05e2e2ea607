import { describe, expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { strFromU8, unzipSync, zipSync } from "fflate";
import type { Node } from "prosemirror-model";
import { schema } from "../manuscript/schema.ts";
import { compareLinks } from "../proof/compare.ts";
import type { ExportReading } from "../proof/exported-link.ts";
import { manuscriptLinks } from "../proof/manuscript-links.ts";
import { readEpub } from "./formats/epub/read-back.ts";
import { readWebPage } from "./formats/web/read-back.ts";
import { bookWith, chapter, text } from "../test/book-of-places.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { asFolder } from "./export-folder.ts";
import { travellingFiles } from "./travelling-files.ts";
import { writeWebPage } from "./formats/web/web-page.ts";

const link = (id: string, words: string, file: string, at?: string): Node => {
  const destination = { kind: "file", file, ...(at ? { at } : {}) };
  return schema.text(words, [schema.mark("link", { id, destination, description: null })]);
};
const bytesOf = (words: string): Uint8Array => new TextEncoder().encode(words);

const given: [id: string, name: string, mediaType: string][] = [
  ["plan", "Réfuge plan №1.pdf", "application/pdf"],
  ["other", "refuge PLAN No1.pdf", "application/pdf"],
  ["whistle", "whistle.mp3", "audio/mpeg"],
  ["script", "…", "application/octet-stream"],
  ["unused", "unused.png", "image/png"],
];
const book = bookWith(
  [
    chapter(
      "c",
      "Refuges",
      text("See ", link("l1", "the plan (PDF)", "plan"), " and ", link("l2", "the other (PDF)", "other")),
    ),
    chapter(
      "d",
      "Signals",
      text(
        link("l3", "the whistle", "whistle"),
        ", ",
        link("l4", "all", "script", "epubcfi(/6/4!/4/2%5Blow%5D)"),
        ", ",
        link("l5", "again", "plan", "page=2&zoom=100,0,40"),
      ),
    ),
  ],
  {
    files: new Map(given.map(([id, name, mediaType]) => [id, { name, mediaType, size: name.length }])),
    fileBytes: new Map(given.map(([id, name]) => [id, bytesOf("x".repeat(name.length))])),
  },
);
const proofOf = (reading: ExportReading) => compareLinks(manuscriptLinks(book, reading), reading);

test("each linked file travels once, under a plain name of its own", () => {
  expect([...travellingFiles(book)].map(([id, { path }]) => [id, path])).toEqual([
    ["plan", "files/Refuge-plan-No1.pdf"],
    ["other", "files/refuge-PLAN-No1-2.pdf"],
    ["whistle", "files/whistle.mp3"],
    ["script", "files/file"],
  ]);
});

test("no file travels under the name of a device, which Windows would not unpack", () => {
  const names = ["con.pdf", "Aux", "nul.tar.gz", "console.pdf"];
  const links = names.map((name, i) => link(`l${i}`, name, `f${i}`));
  const files = new Map(names.map((name, i) => [`f${i}`, { name, mediaType: "application/pdf", size: 1 }]));
  const paths = [...travellingFiles(bookWith([chapter("c", "Refuges", text(...links))], { files })).values()];
  expect(paths.map(({ path }) => path)).toEqual([
    "files/con-.pdf",
    "files/Aux-",
    "files/nul-.tar.gz",
    "files/console.pdf",
  ]);
});

describe("an e-book", () => {
  const epub = writeEpub(book);
  const files = unzipSync(epub);

  // EPUB 3.3: what is linked to is in the spine, and has a fallback where e-readers need not open it (RSC-011, OPF-043).
  test("holds them as the standard allows, by EPUBCheck", async () => {
    const { messages } = await EpubCheck.validate(epub);
    expect(messages.filter(({ severity }) => severity !== "info" && severity !== "usage")).toEqual([]);
    expect(Buffer.from(files["EPUB/files/whistle.mp3"]!)).toEqual(Buffer.from("x".repeat(11)));
    expect(strFromU8(files["EPUB/file-003.xhtml"]!)).toContain(
      '<h1><a href="files/whistle.mp3">whistle.mp3</a></h1>',
    );
    expect(Object.keys(files)).not.toContain("EPUB/files/unused.png");
  });

  test("is proven to lead to each of them", () => {
    expect(proofOf(readEpub(epub))).toMatchObject({ complete: true, intact: 5, total: 5 });
  });

  // RFC 8118.
  test("says behind a file’s path which page of it is meant, and is told where it does not", () => {
    const path = Object.keys(files).find((name) =>
      strFromU8(files[name]!).includes("Refuge-plan-No1.pdf#page=2&amp;zoom=100,0,40"),
    )!;
    const page = strFromU8(files[path]!);
    for (const other of ["", "#page=3"]) {
      const changed = zipSync({
        ...files,
        [path]: bytesOf(page.replace("#page=2&amp;zoom=100,0,40", other)),
      });
      const { rows } = proofOf(readEpub(changed));
      expect([other, rows.map(({ verdict }) => verdict)]).toEqual([
        other,
        ["intact", "intact", "intact", "intact", "other-destination"],
      ]);
    }
  });

  test("is told where the file that came along has no such page", () => {
    const withPages = (pages: number) =>
      new Map(book.files).set("plan", { ...book.files.get("plan")!, places: { pages, places: [] } });
    const proofWith = (pages: number) => {
      const reading = readEpub(epub);
      return compareLinks(manuscriptLinks({ ...book, files: withPages(pages) }, reading), reading);
    };
    expect(proofWith(2).complete).toBe(true);
    expect(proofWith(1).rows.at(-1)).toMatchObject({
      verdict: "dead-end",
      note: "The file came along, but it has no such page or place.",
    });
  });

  test("that lost one, or has another in its place, is told so", () => {
    const lost: Record<string, Uint8Array> = { ...files };
    delete lost["EPUB/files/whistle.mp3"];
    lost["EPUB/files/file"] = bytesOf("another one");
    const { rows, complete } = proofOf(readEpub(zipSync(lost)));
    expect(complete).toBe(false);
    expect(rows.map(({ verdict, note }) => [verdict, note])).toEqual([
      ["intact", null],
      ["intact", null],
      ["dead-end", "The link is there, but its file is not."],
      ["dead-end", "The file that came along is another one."],
      ["intact", null],
    ]);
  });
});

describe("a web page", () => {
  test("stands in a folder with them, and is proven there", () => {
    const folder = asFolder(book, "walks.html", writeWebPage(book)).bytes;
    expect(Object.keys(unzipSync(folder))).toEqual([
      "walks.html",
      "files/Refuge-plan-No1.pdf",
      "files/refuge-PLAN-No1-2.pdf",
      "files/whistle.mp3",
      "files/file",
    ]);
    expect(proofOf(readWebPage(folder))).toMatchObject({ complete: true, intact: 5 });
    // Alone it leads nowhere.
    expect(proofOf(readWebPage(writeWebPage(book)))).toMatchObject({ complete: false, intact: 0 });
    expect(asFolder(book, "walks.html", writeWebPage(book)).bytes).toEqual(folder);
  });

  test("is one file where no link leads to any", () => {
    const alone = bookWith([chapter("c", "Refuges", text("No link."))], { files: book.files });
    expect(strFromU8(asFolder(alone, "walks.html", writeWebPage(alone)).bytes).slice(0, 15)).toBe(
      "<!DOCTYPE html>",
    );
  });
});
