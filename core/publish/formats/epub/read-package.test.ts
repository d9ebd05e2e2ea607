import { expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from "fflate";
import { bookOf } from "../../../test/sample-book.ts";
import { prove } from "../../../proof/prove.ts";
import { readPackage } from "./read-package.ts";
import { readEpub } from "./read-back.ts";
import { writeEpub } from "./write-epub.ts";

const book = bookOf("# One\n\n[office](https://tides.example/)\n");
const path = "EPUB/package.opf";

/** The book as an e-book, with other files in its container, or with a stored entry before all others. */
function epub(change: (files: Record<string, Uint8Array>) => void, first = "mimetype"): Uint8Array {
  const files = unzipSync(writeEpub(book));
  change(files);
  const entries = Object.entries(files).sort(([a], [b]) => Number(b === first) - Number(a === first));
  return zipSync(
    Object.fromEntries(
      entries.map(([name, bytes]): [string, Zippable[string]] => [
        name,
        [bytes, { level: name === first ? 0 : 6 }],
      ]),
    ),
  );
}

const withPackage =
  (pattern: RegExp, by: string) =>
  (files: Record<string, Uint8Array>): void => {
    const text = strFromU8(files[path]!);
    expect(text).toMatch(pattern);
    files[path] = strToU8(text.replace(pattern, by));
  };

const faultsOf = (bytes: Uint8Array): string[] =>
  readPackage(bytes, unzipSync(bytes)).faults.map(({ what }) => what);

test("a package of ours says nothing that could keep readers from its pages", () => {
  const bytes = epub(() => undefined);
  expect(faultsOf(bytes)).toEqual([]);
  expect(prove(book, readEpub(bytes)).complete).toBe(true);
});

test.each<[string, (files: Record<string, Uint8Array>) => void]>([
  ["another kind of file", (files) => (files["mimetype"] = strToU8("application/zip"))],
  ["a file of rights", (files) => (files["META-INF/encryption.xml"] = strToU8("<encryption/>"))],
  ["a file that is not listed", (files) => (files["EPUB/other.css"] = strToU8("a { display: none }"))],
  ["a file that is not there", (files) => delete files["EPUB/style.css"]],
  [
    "pages of a fixed layout",
    withPackage(/<\/metadata>/, '<meta property="rendition:layout">pre-paginated</meta></metadata>'),
  ],
  ["a script", withPackage(/(id="chapter-001"[^>]*)\/>/, '$1 properties="scripted"/>')],
  ["a page that comes twice", withPackage(/(<itemref idref="chapter-001"\/>)/, "$1$1")],
  ["a page that is none", withPackage(/<itemref idref="chapter-001"\/>/, '<itemref idref="elsewhere"/>')],
  [
    "a chapter of another type",
    withPackage(/(id="chapter-001" href="[^"]*" media-type=")[^"]*/, "$1text/html"),
  ],
  ["no list to find the way", withPackage(/ properties="nav"/, "")],
  ["what is of no package", withPackage(/<\/package>/, "<bindings/></package>")],
])("%s is told", (_, change) => {
  expect(faultsOf(epub(change)).length).toBeGreaterThan(0);
});

// OCF 3.3, 4.2.6.3, by which programs tell an e-book from other containers.
test("a container that does not begin by its kind is told", () => {
  expect(faultsOf(epub(() => undefined, "META-INF/container.xml"))).toHaveLength(1);
});

test("a chapter beside the order of reading is told by its title", () => {
  const bytes = epub(withPackage(/(<itemref idref="chapter-001")/, '$1 linear="no"'));
  expect(prove(book, readEpub(bytes)).faults).toEqual([
    { where: "The order of reading", what: "“One” stands beside it." },
  ]);
});

test.each([
  ["is said to be written in another way", 'encoding="UTF-8"', 'encoding="iso-8859-1"'],
  ["has entities of its own", "<!DOCTYPE html>", '<!DOCTYPE html [<!ENTITY a "b">]>'],
])("a page that %s cannot be read", (_, pattern, by) => {
  const page = "EPUB/chapter-001.xhtml";
  const bytes = epub((files) => {
    expect(strFromU8(files[page]!)).toContain(pattern);
    files[page] = strToU8(strFromU8(files[page]!).replace(pattern, by));
  });
  expect(() => readEpub(bytes)).toThrow(expect.objectContaining({ code: "unreadable" }));
});
