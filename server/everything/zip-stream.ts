import { Readable } from "node:stream";
import { Zip, ZipPassThrough } from "fflate";

/** A file of a zip: its path in it, and its bytes as they come. */
export interface ZipEntry {
  path: string;
  content: AsyncIterable<Uint8Array> | Iterable<Uint8Array>;
}

/** A zip that is written while its entries come; of none of them more than a piece is in memory. */
export function zipStream(entries: AsyncIterable<ZipEntry>): Readable {
  return Readable.from(pieces(entries), { objectMode: false });
}

async function* pieces(entries: AsyncIterable<ZipEntry>): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    ready.push(piece);
  });
  for await (const { path, content } of entries) {
    const entry = new ZipPassThrough(path);
    zip.add(entry);
    for await (const piece of content) {
      entry.push(piece);
      yield* ready.splice(0);
    }
    entry.push(new Uint8Array(0), true);
    yield* ready.splice(0);
  }
  zip.end();
  yield* ready.splice(0);
}
