import { pipeline, Transform, type Readable, type TransformCallback } from "node:stream";
import { createBrotliDecompress, createGunzip, createInflate, createInflateRaw } from "node:zlib";
import { ReachFailure } from "./resolver.ts";

const unpackers: Record<string, () => Transform> = {
  gzip: createGunzip,
  "x-gzip": createGunzip,
  deflate: () => new Deflated(),
  br: createBrotliDecompress,
};
/** Codings that are known, and cannot be unpacked here (IANA, HTTP Content Coding Registry). */
const others = new Set(["compress", "x-compress", "zstd", "dcb", "dcz", "exi", "pack200-gzip"]);
/** No server packs an answer more often in earnest. */
const mostCodings = 5;

/**
 * The body of an answer without the codings it was packed in, the last of which was put on last (RFC 9110, 8.4). A word that
 * is no coding, such as a charset's, is passed over, as browsers do.
 * @param header the `Content-Encoding`
 * @throws ReachFailure where it is packed in what cannot be unpacked
 */
export function unpackedBody(body: Readable, header: string): Readable {
  const codings = header
    .split(",")
    .map((one) => one.trim().toLowerCase())
    .filter((coding) => Object.hasOwn(unpackers, coding) || others.has(coding));
  if (codings.length > mostCodings || codings.some((coding) => others.has(coding)))
    throw new ReachFailure({ code: "undecodable" });
  // The callback takes what the loop that reads has been told already.
  return codings.reduceRight<Readable>(
    (packed, coding) => pipeline(packed, unpackers[coding]!(), () => undefined),
    body,
  );
}

/** What is called “deflate” comes with the head of zlib's format, as it should, or from some servers without (RFC 9110, 8.4.1.2). */
class Deflated extends Transform {
  private inner: Transform | null = null;

  override _transform(bytes: Buffer, _encoding: BufferEncoding, done: TransformCallback): void {
    if (bytes.length === 0) return done();
    if (!this.inner) {
      // RFC 1950, 2.2: the method, of which there is one, is in the lower half of the first byte.
      this.inner = (bytes[0]! & 0x0f) === 8 ? createInflate() : createInflateRaw();
      this.inner.on("data", (piece: Buffer) => this.push(piece));
      this.inner.on("error", (error) => this.destroy(error));
    }
    this.inner.write(bytes, () => done());
  }

  override _flush(done: TransformCallback): void {
    if (!this.inner) return done();
    this.inner.once("end", () => done());
    this.inner.end();
  }

  override _destroy(error: Error | null, done: (error: Error | null) => void): void {
    this.inner?.destroy();
    done(error);
  }
}
