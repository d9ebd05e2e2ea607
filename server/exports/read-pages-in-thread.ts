import { Worker } from "node:worker_threads";
import {
  readPagesOfFile,
  type PdfPagesRead,
  type ReadPagesElsewhere,
} from "@vennet/core/publish/formats/pdf/read-pages";
import type { PagesToRead } from "./pages-thread.ts";

/** Reads pages of a PDF in a thread of this process; here, where no thread can be begun or it ends early. */
export const readPagesInThread: ReadPagesElsewhere = async (bytes, range, unreachable, tell) => {
  try {
    return await inThread({ bytes, range, unreachable }, tell);
  } catch (error) {
    process.emitWarning(`Pages are read in one thread: ${(error as Error).message}`);
    return readPagesOfFile(bytes, range, unreachable, tell);
  }
};

function inThread(workerData: PagesToRead, tell: (read: number) => void): Promise<PdfPagesRead> {
  const thread = new Worker(new URL("./pages-thread.js", import.meta.url), { workerData });
  return new Promise<PdfPagesRead>((resolve, reject) => {
    thread.on("message", (told: number | PdfPagesRead) => {
      if (typeof told === "number") tell(told);
      else resolve(told);
    });
    thread.once("error", reject);
    thread.once("exit", () => reject(new Error("the thread ended before all pages were read")));
  });
}
