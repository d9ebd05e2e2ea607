import { createHash } from "node:crypto";
import { createReadStream, createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { Problem } from "../errors/problem.ts";
import { sampleSize } from "./media-type.ts";
import { uploadLimit } from "./uploaded-file.ts";

/** A file that has arrived whole, and waits on disk to be taken into the database. */
export interface ReceivedFile {
  path: string;
  size: number;
  sha256: string;
  /** Its first bytes, by which its type is judged. */
  sample: Buffer;
}

/** A file that waits on disk already, as it is to be taken into the database. */
export async function receivedAt(path: string): Promise<ReceivedFile> {
  const hash = createHash("sha256");
  const sample: Buffer[] = [];
  let size = 0;
  for await (const piece of createReadStream(path) as AsyncIterable<Buffer>) {
    if (size < sampleSize) sample.push(piece);
    size += piece.length;
    hash.update(piece);
  }
  const first = Buffer.concat(sample).subarray(0, sampleSize);
  return { path, size, sha256: hash.digest("hex"), sample: first };
}

/**
 * Receives a file to disk, however slowly it comes, and gives it to whoever stores it: no transaction waits for a
 * sender. The file on disk is gone afterwards.
 * @throws Problem `too-large` past the limit
 */
export async function receive<T>(content: Readable, take: (file: ReceivedFile) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), "vennet-upload-"));
  try {
    const path = join(folder, "content");
    const hash = createHash("sha256");
    const sample: Buffer[] = [];
    let size = 0;
    // What is left of a refused file has to be read away by whoever reads the form, so it stays open.
    const pieces = content.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>;
    await pipeline(async function* () {
      for await (const piece of pieces) {
        if (size < sampleSize) sample.push(piece);
        size += piece.length;
        if (size > uploadLimit) {
          throw new Problem(
            413,
            "too-large",
            "This file is larger than 50 MB. Give readers a shared address for it instead.",
          );
        }
        hash.update(piece);
        yield piece;
      }
    }, createWriteStream(path));
    const first = Buffer.concat(sample).subarray(0, sampleSize);
    return await take({ path, size, sha256: hash.digest("hex"), sample: first });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
