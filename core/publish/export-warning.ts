/** Something of the book that an export could not take over as it is, though it went on. */
export interface ExportWarning {
  code: "letter" | "picture" | "page-list";
  /** The chapter in which it stands; null where it is about the whole book. */
  chapter: string | null;
  message: string;
}
