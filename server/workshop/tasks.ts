import type { Book, PictureFile } from "@vennet/core/manuscript/book";
import type { ChapterJson } from "@vennet/core/manuscript/chapter";
import type { LeftOut } from "@vennet/core/import/markdown";
import type { LinkProof } from "@vennet/core/proof/compare";

/** A book as it crosses to another process: its documents as JSON. */
export interface PlainBook extends Omit<Book, "chapters"> {
  chapters: { id: string; document: ChapterJson }[];
  pictures: PictureFile[];
}

/** What the workshop can do: for each task what goes in and what comes out. */
export interface Tasks {
  importMarkdown: {
    input: {
      markdown: string;
      fallbackTitle: string;
      baseAddress: string | null;
      pictures: Record<string, string>;
    };
    output: { title: string; chapters: ChapterJson[]; leftOut: LeftOut[] };
  };
  /** Sets a PDF. `accessible` asks for PDF/UA-1; without it the PDF is tagged but makes no such claim. */
  writePdf: { input: { book: PlainBook; accessible: boolean }; output: Uint8Array };
  writeEpub: { input: { book: PlainBook }; output: Uint8Array };
  /** Reads an exported file's own bytes back and compares its links with the manuscript's. */
  prove: { input: { book: PlainBook; format: "pdf" | "epub"; bytes: Uint8Array }; output: LinkProof };
}

export type TaskName = keyof Tasks;

export type TaskResult =
  { ok: true; output: unknown } | { ok: false; code: string; message: string; expected: boolean };
