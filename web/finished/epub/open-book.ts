import { XhtmlSource } from "@vennet/core/finished/epub/xhtml-source";
import { useEffect, useState } from "react";
import { openEpub } from "../../read/open-epub";
import type { OpenFlow } from "../../read/open-flow";

/** An e-book that came, opened: its pages as they are shown, and as they are written. */
export interface OpenBook {
  file: OpenFlow;
  /** The source of a page, by its path in the container. */
  source: (path: string) => XhtmlSource;
}

/** The e-book that came, downloaded and opened. */
export function useOpenBook(bookId: string): { book: OpenBook | null; problem: string | null } {
  const [book, setBook] = useState<OpenBook | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const leaving = new AbortController();
    const open = async (): Promise<void> => {
      const answer = await fetch(`/api/books/${bookId}/finished/file`, { signal: leaving.signal });
      if (!answer.ok) throw new Error(`The server did not give the file (${answer.status}).`);
      const file = openEpub(new Uint8Array(await answer.arrayBuffer()));
      if (!leaving.signal.aborted) setBook({ file, source: sourcesOf(file) });
    };
    open().catch((error: unknown) => {
      if (!leaving.signal.aborted) setProblem((error as Error).message);
    });
    return () => leaving.abort();
  }, [bookId]);
  return { book, problem };
}

function sourcesOf({ files }: OpenFlow): OpenBook["source"] {
  const read = new Map<string, XhtmlSource>();
  return (path) => {
    let source = read.get(path);
    if (!source) {
      const bytes = files.get(path) ?? new Uint8Array();
      source = new XhtmlSource(new TextDecoder("utf-8", { ignoreBOM: true }).decode(bytes));
      read.set(path, source);
    }
    return source;
  };
}
