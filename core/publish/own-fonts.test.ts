import { expect, test } from "@jest/globals";
import type { FontFace } from "../manuscript/book-fonts.ts";
import { prove } from "../proof/prove.ts";
import { bookOf } from "../test/sample-book.ts";
import { readEpub } from "./formats/epub/read-back.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { readWebPage } from "./formats/web/read-back.ts";
import { writeWebFolder } from "./formats/web/web-folder.ts";
import { writeWebPage } from "./formats/web/web-page.ts";
import { fontFaceRule, fontRules, ownFonts } from "./own-fonts.ts";
import { BookScripts, codeFamilies, familiesOfBook, textFamilies } from "./formats/pdf/script-fonts.ts";

const face = (family: string, more: Partial<FontFace> = {}): FontFace => ({
  family,
  weight: 400,
  stretch: 100,
  italic: false,
  permission: "installable",
  canBeSubset: true,
  mediaType: "font/ttf",
  bytes: new Uint8Array(1),
  ...more,
});

test("a family sets what it was chosen for, with those of its faces that may go into the file", () => {
  const fontFaces = [
    face("Causeway"),
    face("Causeway", { weight: 700, canBeSubset: false }),
    face("Ferryman", { permission: "preview" }),
    face("Spare"),
  ];
  const book = bookOf("# A", { fonts: { text: "Causeway", headings: "Ferryman", code: "Gone" }, fontFaces });
  const found = (medium: "pdf" | "epub" | "web") => {
    const { fonts, faces } = ownFonts(book, medium);
    return [Object.values(fonts), faces.map(({ family, weight }) => `${family} ${weight}`)];
  };
  expect(found("pdf")).toEqual([
    ["Causeway", "Ferryman", null],
    ["Causeway 400", "Ferryman 400"],
  ]);
  expect(found("epub")).toEqual([
    ["Causeway", "Ferryman", null],
    ["Causeway 400", "Causeway 700", "Ferryman 400"],
  ]);
  expect(found("web")).toEqual([
    ["Causeway", null, null],
    ["Causeway 400", "Causeway 700"],
  ]);
});

test("files with the author's fonts in them are proven as all others", () => {
  const book = bookOf("# A\n\n[office](https://tides.example/)", {
    fonts: { text: "Causeway", headings: "Causeway", code: "Causeway" },
    fontFaces: [face("Causeway"), face("Causeway", { weight: 700, italic: true, stretch: 87.5 })],
  });
  for (const reading of [
    readEpub(writeEpub(book)),
    readWebPage(writeWebFolder(book)),
    readWebPage(writeWebPage(book)),
  ])
    expect(prove(book, reading)).toMatchObject({ complete: true, faults: [] });
});

// CSS Syntax 3, 4.3.5 and 4.3.7: a string ends at its quote, and a backslash begins an escape.
test("no family's name ends the string that it stands in, nor the style sheet", () => {
  const name = 'A"B\\C</style>\nD';
  const rules = fontFaceRule(face(name), "x.ttf") + fontRules({ text: name, headings: null, code: null });
  expect(rules).not.toContain("</style>");
  expect(rules.match(/font-family: "([^"]*)"/g)).toEqual([
    'font-family: "A\\22 B\\5c C\\3c /style>\\a D"',
    'font-family: "A\\22 B\\5c C\\3c /style>\\a D"',
  ]);
});

test("the author's families go before the usual, and each is looked in wherever a letter is wanting", () => {
  expect(familiesOfBook({ text: "T", headings: "H", code: null })).toEqual({
    text: ["T", "H", ...textFamilies],
    headings: ["H", "T", ...textFamilies],
    code: ["JetBrains Mono", "T", "H", ...codeFamilies.slice(1)],
    own: ["T", "H"],
  });
  expect(familiesOfBook({ text: null, headings: null, code: null })).toEqual({
    text: textFamilies,
    headings: textFamilies,
    code: codeFamilies,
    own: [],
  });
});

test("words of a script are set in the author's font only where it has all the book's letters of it", () => {
  const hasUntil = (last: string) => ({
    has: (family: string, code: number) => family === "Own" && code <= last.codePointAt(0)!,
  });
  const fonts = { text: ["Own", ...textFamilies], own: ["Own"] };
  const first = (last: string): string => {
    const scripts = new BookScripts("גאות בים", "he", fonts, hasUntil(last));
    scripts.spell("גאות");
    return scripts.families[0]![0]!;
  };
  expect(first("ת")).toBe("Own");
  expect(first("ש")).toBe("Noto Serif Hebrew");
});
