import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { smallEpub } from "../test/small-epub.ts";
import { finishedFormatOf, mediaTypeOf } from "./finished-format.ts";

const epub = smallEpub({ "a.xhtml": "<p>One</p>" });
/** One of many that do not begin with what they are. */
const other = zipSync({ "META-INF/container.xml": strToU8("<container/>"), mimetype: strToU8("x") });

test.each([
  ["a PDF", strToU8("%PDF-1.7\n"), "a.bin", "pdf"],
  ["a PDF behind other bytes", strToU8("\n\u0001%PDF-1.4"), "a.pdf", "pdf"],
  ["an e-book", epub, "a.zip", "epub"],
  ["an e-book whose first file is another", other, "A Year.EPUB", "epub"],
  ["a packed folder", other, "a.zip", null],
  ["a text that is called an e-book", strToU8("# One"), "a.epub", null],
  ["nothing", new Uint8Array(), "a.pdf", null],
] as const)("%s is known for what it is", (_what, bytes, name, format) => {
  expect(finishedFormatOf(bytes.subarray(0, 4100), name)).toBe(format);
});

test("each is called on its way as its standard says (ISO 32000-1, annex K; EPUB 3.3, 3.3)", () => {
  expect([mediaTypeOf("pdf"), mediaTypeOf("epub")]).toEqual(["application/pdf", "application/epub+zip"]);
});
