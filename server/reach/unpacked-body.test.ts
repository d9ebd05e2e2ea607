import { Readable } from "node:stream";
import { text } from "node:stream/consumers";
import { brotliCompressSync, deflateRawSync, deflateSync, gzipSync } from "node:zlib";
import { expect, test } from "@jest/globals";
import { unpackedBody } from "./unpacked-body.ts";

const words = "Low water at nine. ".repeat(5_000);
const brotli = (bytes: Uint8Array | string): Buffer => brotliCompressSync(bytes);

/** In pieces, the first of which is empty, as they may come. */
const inPieces = (bytes: Buffer): Readable =>
  Readable.from([Buffer.alloc(0), bytes.subarray(0, 1), bytes.subarray(1, 40), bytes.subarray(40)]);

// RFC 9110, 8.4: what was put on last is taken off first.
test.each([
  ["", Buffer.from(words)],
  ["identity", Buffer.from(words)],
  ["gzip", gzipSync(words)],
  ["X-GZIP", gzipSync(words)],
  ["br", brotli(words)],
  ["deflate", deflateSync(words)],
  ["gzip, br", brotli(gzipSync(words))],
  ["gzip,gzip", gzipSync(gzipSync(words))],
  ["UTF-8", Buffer.from(words)],
  ["constructor", Buffer.from(words)],
  ["none, gzip", gzipSync(words)],
])("what comes as %j is read", async (header, bytes) => {
  expect(await text(unpackedBody(inPieces(bytes), header))).toBe(words);
});

test("what some servers send as deflate, without the head of its format, is read as browsers do", async () => {
  expect(await text(unpackedBody(inPieces(deflateRawSync(words)), "deflate"))).toBe(words);
  expect(await text(unpackedBody(Readable.from([]), "deflate"))).toBe("");
});

test("what is damaged breaks off, and what is packed otherwise is refused", async () => {
  for (const header of ["gzip", "br", "deflate"])
    await expect(text(unpackedBody(inPieces(Buffer.from("not packed")), header))).rejects.toThrow();
  const cut = deflateRawSync(words).subarray(0, 60);
  await expect(text(unpackedBody(inPieces(cut), "deflate"))).rejects.toThrow();
  for (const header of ["zstd", "gzip, compress", Array(20).fill("gzip").join()])
    expect(() => unpackedBody(inPieces(Buffer.from(words)), header)).toThrow("undecodable");
});
