import { docx } from "./docx/docx.ts";
import { ImportError } from "./errors.ts";
import { manuscriptFormatNames } from "./formats.ts";
import type { BroughtFile, ManuscriptReader } from "./manuscript-reader.ts";
import { adviceFor } from "./other-files.ts";
import { epub } from "./epub/epub.ts";
import { folderWith } from "./folder/folder.ts";
import { html } from "./html/html.ts";
import { markdown } from "./markdown/markdown.ts";
import { odt } from "./odt/odt.ts";

/** The readers of manuscripts, those first that know their own for sure. */
const readers: readonly ManuscriptReader[] = [docx, odt, epub, folderWith([docx, odt, epub]), html, markdown];

/**
 * The reader for a file, by what is in it.
 * @throws ImportError `format` where none knows it, with what can be brought
 */
export function readerFor(file: BroughtFile): ManuscriptReader {
  const advice = adviceFor(file);
  if (advice !== null) throw new ImportError("format", advice);
  const reader = readers.find(({ accepts }) => accepts(file));
  if (reader) return reader;
  throw new ImportError(
    "format",
    `“${file.name}” is not a manuscript that Vennet can read. It reads ${manuscriptFormatNames}: save it as that and bring it again.`,
  );
}
