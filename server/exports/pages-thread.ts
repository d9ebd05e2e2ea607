import { parentPort, workerData } from "node:worker_threads";
import { readPagesOfFile, type PageRange } from "@vennet/core/publish/formats/pdf/read-pages";

/** What the thread is given. */
export interface PagesToRead {
  bytes: Uint8Array;
  range: PageRange;
  unreachable: ReadonlyMap<number, string>;
}

// Reads some pages of a PDF, tells how many it has read, and at last what is on them.
const { bytes, range, unreachable } = workerData as PagesToRead;
parentPort!.postMessage(
  await readPagesOfFile(bytes, range, unreachable, (read) => parentPort!.postMessage(read)),
);
