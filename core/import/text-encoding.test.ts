import { expect, test } from "@jest/globals";
import { decodePage, decodeText } from "./text-encoding.ts";

const inWindows1252 = Uint8Array.from([0x93, 0x54, 0x69, 0x64, 0x65, 0x94, 0x20, 0x96, 0x20, 0x80, 0x39]);
const inUtf16 = (text: string, isLittle: boolean): Uint8Array =>
  Uint8Array.from(
    [...text].flatMap((letter) => {
      const bytes = [letter.charCodeAt(0) & 0xff, letter.charCodeAt(0) >> 8];
      return isLittle ? bytes : bytes.reverse();
    }),
  );

// The letters are those of the WHATWG Encoding Standard’s index of windows-1252.
test("what is in no UTF is in Windows-1252, with its quotation marks, dashes and its sign for euros", () => {
  expect(decodeText(inWindows1252)).toEqual({ text: "“Tide” – €9", guessed: "Latin-1 (Windows-1252)" });
  expect(decodePage(inWindows1252)).toBe("“Tide” – €9");
});

test.each<[string, Uint8Array, string]>([
  [
    "as it says in its head",
    Buffer.concat([Buffer.from('<meta charset="windows-1252">'), inWindows1252]),
    '<meta charset="windows-1252">“Tide” – €9',
  ],
  [
    "as it says where XML does",
    Buffer.from('<?xml version="1.0" encoding="ISO-8859-1"?><p>Fährte</p>', "latin1"),
    '<?xml version="1.0" encoding="ISO-8859-1"?><p>Fährte</p>',
  ],
  ["in UTF-16 by its mark", inUtf16("\ufeff<p>Fährte</p>", false), "<p>Fährte</p>"],
  ["in UTF-16 without a mark", inUtf16("<p>Fährte</p>", true), "<p>Fährte</p>"],
  ["in UTF-16 of the other order without a mark", inUtf16("<p>Fährte</p>", false), "<p>Fährte</p>"],
  // WHATWG HTML, 13.2.3.3: what can be read to say UTF-16 is in none.
  [
    "in UTF-8 where it says UTF-16 and is not",
    Buffer.from('<meta charset="utf-16"><p>Fährte</p>'),
    '<meta charset="utf-16"><p>Fährte</p>',
  ],
  [
    "in UTF-8 where nobody knows what it says",
    Buffer.from('<meta charset="x-tidal">ä'),
    '<meta charset="x-tidal">ä',
  ],
  [
    "in UTF-8 where a few of its letters are damaged",
    Buffer.concat([Buffer.from("<p>Fährte über Höhen "), Buffer.from([0xe4]), Buffer.from("</p>")]),
    "<p>Fährte über Höhen \ufffd</p>",
  ],
])("a page is read %s", (_, bytes, text) => {
  expect(decodePage(new Uint8Array(bytes))).toBe(text);
});

test("a few signs that no text has are left out of one; what has many is none", () => {
  const text = "Low water comes twice a day, and the path is dry for two hours. ".repeat(10);
  expect(decodeText(Buffer.from(`\x02${text}\0\fThe\vend`))?.text).toBe(`${text}\nThe\nend`);
  expect(decodeText(Buffer.from(`${text}${"\x02".repeat(9)}`))).toBeNull();
});
