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

/** What is to be known of a file, gathered as its pieces pass. */
class Measure {
  size = 0;
  private readonly hash = createHash("sha256");
  private readonly first: Buffer[] = [];

  take(piece: Buffer): void {
    if (this.size < sampleSize) this.first.push(piece);
    this.size += piece.length;
    this.hash.update(piece);
  }

  of(path: string): ReceivedFile {
    const sample = Buffer.concat(this.first).subarray(0, sampleSize);
    return { path, size: this.size, sha256: this.hash.digest("hex"), sample };
  }
}

/** A file that waits on disk already, as it is to be taken into the database. */
export async function receivedAt(path: string): Promise<ReceivedFile> {
  const measure = new Measure();
  for await (const piece of createReadStream(path) as AsyncIterable<Buffer>) measure.take(piece);
  return measure.of(path);
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
    const measure = new Measure();
    // What is left of a refused file has to be read away by whoever reads the form, so it stays open.
    const pieces = content.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>;
    await pipeline(async function* () {
      for await (const piece of pieces) {
        measure.take(piece);
        if (measure.size > uploadLimit) {
          throw new Problem(
            413,
            "too-large",
            "This file is larger than 50 MB. Give readers a shared address for it instead.",
          );
        }
        yield piece;
      }
    }, createWriteStream(path));
    return await take(measure.of(path));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
