import { describe, expect, test } from "@jest/globals";
import { pdfOfObjects, streamOf } from "../test/pdf-of-objects.ts";
import { textsBesidePdfJs } from "../test/same-text.ts";
import { ActualTexts } from "./actual-texts.ts";
import { ContentTexts } from "./content-texts.ts";
import { PdfObjects } from "./pdf-objects.ts";
import type { LettersOfLine } from "./shown-items.ts";

// What is read here is compared with what pdf.js, Mozilla's reader, tells of the same page.

/** A map in which codes are letters of ASCII, but that 1 is a joined f and i, 2 an accent, 3 to 5 from a list, 6 of Hebrew. */
const map = `1 begincodespacerange <0000> <ffff> endcodespacerange
1 beginbfrange <0020> <007e> <0020> endbfrange
2 beginbfchar <0001> <FB01> <0002> <0301> endbfchar
1 beginbfrange <0003> <0005> [<2009> <D835DC65> <00660066006C>] endbfrange
2 beginbfchar <0006> <05D0> <0007> <00AD> endbfchar`;

/** The bytes of words in that map, as a string of a content. */
const shown = (words: string): string =>
  `<${[...words].map((sign) => sign.charCodeAt(0).toString(16).padStart(4, "0")).join("")}>`;

const contentOf = (words: string, more = ""): string =>
  `BT /F1 10 Tf 1 0 0 1 20 300 Tm ${more} ${shown(words)} Tj ET`;

/** A page with this content, and what else is to be told of it. */
function pageWith(content: string, more: { font?: string; page?: string; form?: string } = {}) {
  return pdfOfObjects({
    catalog: "<</Type /Catalog /Pages {{pages}}>>",
    pages: "<</Type /Pages /Count 1 /Kids [{{page}}] /MediaBox [0 0 300 400] /Resources {{resources}}>>",
    page: `<</Type /Page /Parent {{pages}} /Contents {{content}} ${more.page ?? ""}>>`,
    resources:
      "<</Font <</F1 {{font}} /F2 {{other}}>> /XObject <</X {{form}}>> /ExtGState <</G <</ca 0.5>> /H <</Font [{{font}} 9]>>>> /Properties <</P1 <</ActualText (the huts)>>>>>>",
    content: streamOf(content),
    font:
      more.font ??
      "<</Type /Font /Subtype /Type0 /BaseFont /Walk /Encoding /Identity-H /DescendantFonts [{{glyphs}}] /ToUnicode {{map}}>>",
    other:
      "<</Type /Font /Subtype /Type0 /BaseFont /Other /Encoding /Identity-H /DescendantFonts [{{glyphs}}] /ToUnicode {{map}}>>",
    glyphs:
      "<</Type /Font /Subtype /CIDFontType2 /BaseFont /Walk /CIDSystemInfo <</Registry (Adobe) /Ordering (Identity) /Supplement 0>> /FontDescriptor {{descriptor}} /DW 600 /W [32 [250] 97 [500 520 480] 105 108 260 2 [0] 7 [0]]>>",
    descriptor:
      "<</Type /FontDescriptor /FontName /Walk /Flags 4 /FontBBox [0 -200 1000 800] /ItalicAngle 0 /Ascent 800 /Descent -200 /CapHeight 700 /StemV 80>>",
    map: streamOf(map),
    form: more.form ?? streamOf("0 0 9 9 re f", "/Type /XObject /Subtype /Form /BBox [0 0 9 9]"),
  });
}

/** The words that are read here; null where the page is left to pdf.js. */
function wordsOf({ bytes, numberOf }: ReturnType<typeof pageWith>): string | null {
  const items = new ContentTexts(new PdfObjects(bytes)).read(numberOf("page")).items;
  const letters = items?.filter((item): item is LettersOfLine => item.kind === "letters");
  return letters?.map(({ words, endsLine }) => words + (endsLine ? "\n" : "")).join("") ?? null;
}

const line = contentOf("Low water");
test.each<[what: string, content: string, words: string]>([
  ["a line", line, "Low water"],
  [
    "signs that are several letters, beyond the first plane, or joined",
    contentOf("\u0001\u0004\u0005"),
    "fi𝑥ffl",
  ],
  ["an accent on the letter before it", contentOf("a\u0002b"), "a\u0301b"],
  ["a narrow blank", contentOf("9\u0003h"), "9 h"],
  ["a place where a word may be divided", contentOf("cause\u0007way"), "causeway"],
  [
    "letters that are moved together and apart",
    `BT /F1 10 Tf 20 300 Td [${shown("a")} 50 ${shown("b")} -90 ${shown("c")} -300 ${shown("d")} -900 ${shown("e")}] TJ ET`,
    "abc d e",
  ],
  [
    "two lines by a step down",
    `BT /F1 10 Tf 20 300 Td ${shown("Low")} Tj 0 -14 Td ${shown("water")} Tj ET`,
    "Low\nwater",
  ],
  [
    "lines by a leading",
    `BT /F1 10 Tf 14 TL 20 300 Td ${shown("a")} Tj T* ${shown("b")} Tj ${shown("c")} ' 1 0.5 ${shown("dd")} " ET`,
    "a\nb\nc\ndd",
  ],
  [
    "a leading that is set by a step",
    `BT /F1 10 Tf 20 300 Td ${shown("a")} Tj 0 -12 TD ${shown("b")} Tj T* ${shown("c")} Tj ET`,
    "a\nb\nc",
  ],
  [
    "raised letters",
    `BT /F1 10 Tf 20 300 Td ${shown("water")} Tj 4 Ts /F1 6 Tf ${shown("1")} Tj ET`,
    "water1",
  ],
  ["letters further apart, and stretched", contentOf("water", "0.5 Tc 80 Tz"), "water"],
  ["letters so far apart that they are words", contentOf("water", "3 Tc"), "w a t e r"],
  [
    "another font in a line",
    `BT /F1 10 Tf 20 300 Td ${shown("Low ")} Tj /F2 10 Tf ${shown("water")} Tj ET`,
    "Low water",
  ],
  [
    "a page that is turned upside down and back",
    `1 0 0 -1 0 400 cm q 1 0 0 -1 20 100 cm ${"BT /F1 10 Tf 1 0 0 1 0 0 Tm"} ${shown("huts")} Tj ET Q BT /F1 10 Tf 1 0 0 -1 20 200 Tm ${shown("stilts")} Tj ET`,
    "huts\nstilts",
  ],
  [
    "larger letters by the page's own size",
    `2 0 0 2 0 0 cm BT /F1 10 Tf 10 150 Td ${shown("Low water")} Tj ET`,
    "Low water",
  ],
  [
    "letters off the page",
    `${line} BT /F1 10 Tf 20 500 Td ${shown("above")} Tj ET BT /F1 10 Tf 400 300 Td ${shown("beside")} Tj ET`,
    "Low water",
  ],
  [
    "marks, one in another",
    `/P <</MCID 0>> BDC ${line} /Span <</MCID 1 /Lang (en)>> BDC ${contentOf("huts")} EMC EMC /Artifact BMC ${contentOf("7")} EMC`,
    "Low waterhuts7",
  ],
  [
    "a blank at the end of a mark, and at the beginning of one",
    `/P <</MCID 0>> BDC BT /F1 10 Tf 20 300 Td ${shown("Low ")} Tj EMC /P <</MCID 1>> BDC ${shown("water")} Tj EMC /P <</MCID 2>> BDC ${shown(" now")} Tj ET EMC`,
    "Low water now",
  ],
  ["marks that the resources name", `/Span /P1 BDC ${line} EMC`, "Low water"],
  [
    "letters that stand for others",
    `/Span <</ActualText (\\376\\377\\000f\\000i)>> BDC ${contentOf("xx")} EMC`,
    "xx",
  ],
  [
    "strings with signs that are escaped, and strings in them",
    "BT /F1 10 Tf 20 300 Td (\\000H\\000u\\000\\164\\000\\() Tj (\\000a\\000(\\000)\\000b) Tj ET",
    "Hut(a()b",
  ],
  ["letters from right to left behind others", contentOf("a\u0006"), "aא"],
  ["letters that are said to be turned round", `/ReversedChars BMC ${contentOf("\u0006\u0006")} EMC`, "אא"],
  ["forms that show no text, and looks", `/G gs /X Do ${line}`, "Low water"],
  ["a remark, and numbers of all kinds", `% Low (water\n+.5 -.5 4. 0 -0 1e scn ${line}`, "Low water"],
  ["nothing", "", ""],
])("%s", async (_, content, words) => {
  const page = pageWith(content);
  expect(wordsOf(page)).toBe(words);
  expect(await textsBesidePdfJs(page.bytes)).toEqual({ read: 1, different: [] });
});

describe("what is left to pdf.js", () => {
  test.each<[what: string, page: ReturnType<typeof pageWith>]>([
    ["turned letters", pageWith(`BT /F1 10 Tf 0 1 -1 0 90 90 Tm ${shown("up")} Tj ET`)],
    ["mirrored letters", pageWith(`BT /F1 10 Tf -1 0 0 1 90 90 Tm ${shown("up")} Tj ET`)],
    [
      "a font of single bytes",
      pageWith("BT /F1 9 Tf (up) Tj ET", { font: "<</Type /Font /Subtype /Type1 /BaseFont /Helvetica>>" }),
    ],
    [
      "a font without a map",
      pageWith(line, {
        font: "<</Type /Font /Subtype /Type0 /BaseFont /W /Encoding /Identity-H /DescendantFonts [{{glyphs}}]>>",
      }),
    ],
    [
      "a font from top to bottom",
      pageWith(line, {
        font: "<</Type /Font /Subtype /Type0 /BaseFont /W /Encoding /Identity-V /DescendantFonts [{{glyphs}}] /ToUnicode {{map}}>>",
      }),
    ],
    ["a code that the map does not tell", pageWith(contentOf("a\u0011b"))],
    ["a font in a set of looks", pageWith(`/H gs ${line}`)],
    [
      "a form that shows text",
      pageWith(`/X Do ${line}`, { form: streamOf("BT ET", "/Type /XObject /Subtype /Form /BBox [0 0 9 9]") }),
    ],
    ["a picture between operators", pageWith(`BI /W 1 /H 1 /BPC 8 /CS /G ID x EI ${line}`)],
    ["text before a font is set", pageWith("BT (ab) Tj ET")],
    ["a font that is not there", pageWith("BT /F7 9 Tf (ab) Tj ET")],
    ["a step of too few numbers", pageWith(`1 0 0 1 cm ${line}`)],
    ["a list without an end", pageWith(`BT /F1 10 Tf [${shown("a")}`)],
    ["a string without an end", pageWith("BT /F1 10 Tf (ab")],
    [
      "content that is packed in a way of its own",
      pageWith("", { page: "/Contents {{form}}", form: streamOf("x", "/Filter /LZWDecode") }),
    ],
    [
      "content that cannot be unpacked",
      pageWith("", { page: "/Contents {{form}}", form: streamOf("x", "/Filter /FlateDecode") }),
    ],
  ])("%s", (_, page) => expect(wordsOf(page)).toBeNull());
});

test("a picture between operators leaves untold what marked contents of its page stand for", () => {
  const told = (content: string): unknown => {
    const { bytes, numberOf } = pageWith(`/Span /P1 BDC ${content} EMC`);
    return new ActualTexts(new PdfObjects(bytes)).ofPage(numberOf("page"), 1);
  };
  expect(told(line)).toEqual(["the huts"]);
  expect(told(`BI /W 1 /H 1 /BPC 8 /CS /G ID x EI ${line}`)).toEqual([]);
});
