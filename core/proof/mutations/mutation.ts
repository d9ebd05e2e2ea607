import type { OpenContainer } from "./opened/open-container.ts";
import type { OpenPages } from "./opened/open-pages.ts";
import type { OpenPdf } from "./opened/open-pdf.ts";

/** Takes one of several where a damage can be done; the same ones each time for the same seed. */
export type Pick = <T>(all: readonly T[]) => T | undefined;

/** Damages a file in place. @returns whether it could: a file may have nothing of what it damages */
export type Damage<File> = (file: File, pick: Pick) => boolean;

/** A damage done to an exported file, which a reader could notice and a proof has to: in each format where it makes sense. */
export interface Mutation {
  /** What is done, as the kill table says it. */
  name: string;
  /** In every file of pages in XHTML or HTML. */
  pages?: Damage<OpenPages>;
  /** In web pages alone. */
  web?: Damage<OpenPages>;
  /** In e-books alone, besides. */
  epub?: Damage<OpenPages>;
  pdf?: Damage<OpenPdf>;
  markdown?: Damage<OpenContainer>;
  docx?: Damage<OpenContainer>;
  odt?: Damage<OpenContainer>;
}
