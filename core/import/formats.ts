import type { ManuscriptFormat } from "./manuscript-reader.ts";
import { docxFormat } from "./docx/format.ts";
import { epubFormat } from "./epub/format.ts";
import { folderFormat } from "./folder/format.ts";
import { htmlFormat } from "./html/format.ts";
import { markdownFormat } from "./markdown/format.ts";
import { odtFormat } from "./odt/format.ts";

/** The formats in which a manuscript can be brought in, apart from what reads them. */
export const manuscriptFormats: readonly ManuscriptFormat[] = [
  markdownFormat,
  docxFormat,
  odtFormat,
  htmlFormat,
  epubFormat,
  folderFormat,
];

/** The names of these formats, as a sentence takes them. */
export const manuscriptFormatNames = manuscriptFormats
  .map(({ name }) => name)
  .join(", ")
  .replace(/, ([^,]*)$/, " or $1");
