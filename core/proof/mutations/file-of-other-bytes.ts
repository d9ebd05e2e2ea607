import type { Mutation } from "./mutation.ts";
import { damaged } from "./opened/companions.ts";

/** Another file came along. */
export const fileOfOtherBytes: Mutation = {
  name: "a companion file with other bytes of the same size",
  pages: (file, pick) => damaged(file, pick),
  markdown: (file, pick) => damaged(file, pick),
  docx: (file, pick) => damaged(file, pick),
  odt: (file, pick) => damaged(file, pick),
  pdf: (file, pick) => damaged(file.beside, pick),
};
