import type { BookFinding, KnownOfBook } from "@vennet/core/checks/check-book";
import type { Book, ChapterRole, PictureFile } from "@vennet/core/manuscript/book";
import type { ChapterJson } from "@vennet/core/manuscript/chapter";
import type { LeftOut } from "@vennet/core/import/markdown";
import type { LinkProof } from "@vennet/core/proof/compare";
import type { ExportFormat, ExportOptions } from "@vennet/core/publish/export-options";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import type { PrintedAddresses } from "@vennet/core/publish/typeset";

/** A book as it crosses to another process: its documents as JSON. */
export interface PlainBook extends Omit<Book, "chapters"> {
  chapters: { id: string; role: ChapterRole; document: ChapterJson }[];
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
  /** Sets a PDF, in a folder with the companion files that it leads to, if any. `accessible` asks for PDF/UA-1; without it the PDF is tagged but makes no such claim. */
  writePdf: {
    input: { book: PlainBook; name: string; accessible: boolean; addresses: PrintedAddresses };
    output: Written;
  };
  /** Sets one chapter without the others, as it will look in the PDF. */
  setChapter: {
    input: { book: PlainBook; chapter: number; pageOfPlace: Record<string, string> };
    output: Uint8Array;
  };
  /** `pdf` is an exported PDF of the book, from which its page numbers are taken. */
  writeEpub: {
    input: { book: PlainBook; fonts: boolean; pdf: { name: string; bytes: Uint8Array } | null };
    output: Written;
  };
  writeWebPage: { input: { book: PlainBook; name: string; pages: ExportOptions["pages"] }; output: Written };
  writeMarkdown: { input: { book: PlainBook; name: string }; output: Written };
  writeDocx: { input: { book: PlainBook; name: string }; output: Written };
  /** What the rules find in a whole book; with `only`, what the rule of that id does. */
  check: { input: { book: PlainBook; known: KnownOfBook; only?: string }; output: BookFinding[] };
  /** Reads an exported file's own bytes back and compares its links with the manuscript's. */
  prove: {
    input: { book: PlainBook; format: ExportFormat; bytes: Uint8Array };
    output: { proof: LinkProof; pageOfPlace: ReadonlyMap<string, string> };
  };
}

/** An exported file, and what could not go into it as it is. */
export interface Written {
  bytes: Uint8Array;
  warnings: ExportWarning[];
}

export type TaskName = keyof Tasks;

export type TaskResult =
  { ok: true; output: unknown } | { ok: false; code: string; message: string; expected: boolean };
