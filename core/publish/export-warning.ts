/** Something of the book that an export cannot take over as it is, though it goes on. */
export interface ExportWarning {
  code: "letter" | "picture" | "page-list" | "gap" | "picture-alternative";
  /** The chapter in which it stands; null where it is about the whole book. */
  chapter: string | null;
  message: string;
}

/** The same as it is told before the export, with where it stands in the text. */
export interface ForeseenChange extends ExportWarning {
  /** Positions in the document of a chapter, given by its index. */
  at: { chapter: number; from: number; to: number } | null;
}
