import { XhtmlSource } from "@vennet/core/finished/epub/xhtml-source";
import { openEpub } from "../../read/open-epub";
import type { Asked } from "../../parts/not-read";
import type { OpenFlow } from "../../read/open-flow";
import { useOpenedFile } from "../../read/use-opened-file";

/** An e-book that came, opened: its pages as they are shown, and as they are written. */
export interface OpenBook {
  file: OpenFlow;
  /** The source of a page, by its path in the container. */
  source: (path: string) => XhtmlSource;
}

/** The e-book that came, downloaded and opened. */
export function useOpenBook(bookId: string): { book: OpenBook | null; asked: Asked } {
  const { opened, asked } = useOpenedFile(`/api/books/${bookId}/finished/file`, openBook);
  return { book: opened, asked };
}

function openBook(bytes: Uint8Array): OpenBook {
  const file = openEpub(bytes);
  return { file, source: sourcesOf(file) };
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
