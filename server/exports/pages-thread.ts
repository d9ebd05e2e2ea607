import { parentPort } from "node:worker_threads";
import { readPagesOfFile, type PageRange } from "@vennet/core/publish/formats/pdf/read-pages";

/** What the thread is asked for. */
export interface PagesToRead {
  bytes: Uint8Array;
  range: PageRange;
  unreachable: ReadonlyMap<number, string>;
}

// Reads some pages of each PDF that it is given, tells how many it has read, and at last what is on them.
parentPort!.on("message", ({ bytes, range, unreachable }: PagesToRead) => {
  void readPagesOfFile(bytes, range, unreachable, (read) => parentPort!.postMessage(read)).then((pages) =>
    parentPort!.postMessage(pages),
  );
});
