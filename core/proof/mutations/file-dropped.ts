import type { Mutation } from "./mutation.ts";
import { dropped } from "./opened/companions.ts";

/** The link leads to nothing. */
export const fileDropped: Mutation = {
  name: "a companion file left at home",
  pages: (file, pick) => dropped(file, pick),
  markdown: (file, pick) => dropped(file, pick),
  docx: (file, pick) => dropped(file, pick),
  odt: (file, pick) => dropped(file, pick),
  pdf: (file, pick) => dropped(file.beside, pick),
};
