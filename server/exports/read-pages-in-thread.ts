import { Worker } from "node:worker_threads";
import {
  readPagesOfFile,
  type PdfPagesRead,
  type ReadPagesElsewhere,
} from "@vennet/core/publish/formats/pdf/read-pages";
import type { PagesToRead } from "./pages-thread.ts";

/** A thread that nobody asks for anything is ended after so long. */
const idleMs = 60_000;

let begun: Worker | null = null;
let idle: NodeJS.Timeout | undefined;

/** Begins the thread, where none is there: it takes half a second to be ready, as long as the pages of a short book. */
export function beginPagesThread(): void {
  pagesThread();
  restartIdle();
}

/** Reads pages of a PDF in a thread of this process; here, where no thread can be begun or it ends early. */
export const readPagesInThread: ReadPagesElsewhere = async (bytes, range, unreachable, tell) => {
  clearTimeout(idle);
  try {
    return await asked(pagesThread(), { bytes, range, unreachable }, tell);
  } catch (error) {
    process.emitWarning(`Pages are read in one thread: ${(error as Error).message}`);
    return readPagesOfFile(bytes, range, unreachable, tell);
  } finally {
    restartIdle();
  }
};

function pagesThread(): Worker {
  if (begun) return begun;
  const thread = new Worker(new URL("./pages-thread.js", import.meta.url));
  begun = thread;
  // Whoever asks it hears of its end; nobody waits for it else.
  thread.on("error", () => undefined);
  thread.once("exit", () => {
    if (begun === thread) begun = null;
  });
  thread.unref();
  return thread;
}

function restartIdle(): void {
  clearTimeout(idle);
  idle = setTimeout(() => {
    void begun?.terminate();
    begun = null;
  }, idleMs).unref();
}

function asked(thread: Worker, pages: PagesToRead, tell: (read: number) => void): Promise<PdfPagesRead> {
  return new Promise<PdfPagesRead>((resolve, reject) => {
    const onMessage = (told: number | PdfPagesRead): void => {
      if (typeof told === "number") tell(told);
      else end(() => resolve(told));
    };
    const onError = (error: Error): void => end(() => reject(error));
    const onExit = (): void => end(() => reject(new Error("the thread ended before all pages were read")));
    const end = (settle: () => void): void => {
      thread.off("message", onMessage).off("error", onError).off("exit", onExit);
      thread.unref();
      settle();
    };
    thread.ref();
    thread.on("message", onMessage).once("error", onError).once("exit", onExit);
    thread.postMessage(pages);
  });
}
