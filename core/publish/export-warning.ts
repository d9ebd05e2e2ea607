/** Something of the book that an export cannot take over as it is, though it goes on. */
export interface ExportWarning {
  code: "letter" | "font" | "picture" | "page-list" | "gap" | "picture-alternative";
  /** The chapter in which it stands; null where it is about the whole book. */
  chapter: string | null;
  message: string;
}

/** Something that is told before an export. */
export interface Foreseen {
  /** Where it stands: positions in the document of a chapter, given by its index; null where it is about the whole book. */
  at: { chapter: number; from: number; to: number } | null;
}

/** What an export will warn of. */
export interface ForeseenChange extends ExportWarning, Foreseen {}
