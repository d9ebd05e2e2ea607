import type { Book } from "../manuscript/book.ts";
import type { ExportOptions } from "./formats/formats.ts";

/** Whether companion files stay at home. */
export function leavesFiles(options: ExportOptions): boolean {
  return "companions" in options && options.companions === "left-out";
}

/** A book as it is exported with some choices. */
export function prepare(book: Book, options: ExportOptions): Book {
  const layout = "layout" in options ? options.layout : null;
  return { ...book, leavesFiles: leavesFiles(options), layout: layout ?? book.layout };
}
