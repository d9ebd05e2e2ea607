import { expect, test } from "@jest/globals";
import { decoderOf } from "./page-decoder.ts";

/** What a page's bytes say, however they are cut into pieces. */
function read(bytes: Buffer, contentType: string | undefined, piece = bytes.length): string {
  const decoder = decoderOf(contentType);
  let text = "";
  for (let i = 0; i < bytes.length; i += piece) text += decoder.decode(bytes.subarray(i, i + piece));
  return text + decoder.end();
}

// WHATWG HTML, "determining the character encoding", and WHATWG Encoding for the labels (from memory).
test.each([
  ["told by the server", Buffer.from("caf\xe9", "latin1"), "text/html; charset=iso-8859-1", "café"],
  ["told by the server, in quotes", Buffer.from("\x96", "latin1"), 'text/html; charset="windows-1252"', "–"],
  [
    "told by the page",
    Buffer.from('<meta charset="latin1">\xe9', "latin1"),
    "text/html",
    '<meta charset="latin1">é',
  ],
  ["by its mark, whatever was told", Buffer.from("\ufeffÉté", "utf16le"), "text/html; charset=latin1", "Été"],
  ["told by nobody", Buffer.from("Été"), undefined, "Été"],
  ["that nobody knows", Buffer.from("Été"), "text/html; charset=moon-8", "Été"],
  ["of Japan", Buffer.from([0x8a, 0xb1, 0x92, 0xaa]), "text/html; charset=shift_jis", "干潮"],
] as const)("a character set %s", (_how, bytes, contentType, text) => {
  for (const piece of [1, 3, 4096]) expect(read(bytes, contentType, piece)).toBe(text);
});

test("letters that are cut between pieces beyond the sniffed start stay whole", () => {
  const text = `${"a".repeat(2000)}é${"ü".repeat(500)}`;
  for (const piece of [1, 7, 1001]) expect(read(Buffer.from(text), "text/html", piece)).toBe(text);
});
