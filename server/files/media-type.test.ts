import { expect, test } from "@jest/globals";
import { zipSync, strToU8 } from "fflate";
import { judgeMediaType } from "./media-type.ts";

const text = (words: string): Uint8Array => strToU8(words);
const pdf = text("%PDF-1.7\n1 0 obj<<>>endobj");
const zip = zipSync({ "a.txt": strToU8("a") });
const epub = zipSync({ mimetype: [strToU8("application/epub+zip"), { level: 0 }] });

// Signatures and media types as the IANA registrations give them (from memory); file-type reads the bytes.
test.each([
  ["plan.pdf", pdf, "application/pdf", false],
  ["plan.PDF", pdf, "application/pdf", false],
  ["plan", pdf, "application/pdf", false],
  ["plan.docx", pdf, "application/pdf", true],
  ["book.epub", epub, "application/epub+zip", false],
  ["files.zip", zip, "application/zip", false],
  ["sheet.xlsx", zip, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", false],
  ["plan.pdf", zip, "application/zip", true],
  ["notes.txt", text("words"), "text/plain", false],
  ["notes", text("words"), "text/plain", false],
  ["table.csv", text("a,b\n1,2"), "text/csv", false],
  ["page.html", text("<p>x</p>"), "text/html", false],
  ["data.json", text("{}"), "application/json", false],
  ["drawing.svg", text('<svg xmlns="http://www.w3.org/2000/svg"/>'), "image/svg+xml", false],
  ["photo.png", text("words"), "text/plain", true],
  ["photo.png", new Uint8Array([0, 1, 2, 3]), "application/octet-stream", true],
  ["log.bin", new Uint8Array([0, 1, 2, 3]), "application/octet-stream", false],
  ["empty.txt", new Uint8Array(), "text/plain", false],
  ["umlaut.txt", text("Ä".repeat(2050)).subarray(0, 4099), "text/plain", false],
  ["latin.txt", new Uint8Array([0x41, 0xe4, 0x41]), "application/octet-stream", true],
])("%s is judged by its content", async (name, bytes, mediaType, isOdd) => {
  const judged = await judgeMediaType(bytes, name);
  expect([judged.mediaType, judged.warning !== null]).toEqual([mediaType, isOdd]);
  if (judged.warning) expect(judged.warning).toContain(`“${name}”`);
});
