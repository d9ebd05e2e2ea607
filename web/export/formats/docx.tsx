import { docxOptions } from "@vennet/core/publish/formats/docx/options";
import type { Chosen } from "@vennet/core/publish/formats/option";
import type { FormatOnScreen } from "./format-on-screen";
import { CompanionsTick, companionWords } from "./tick";

export const docx: FormatOnScreen<Chosen<typeof docxOptions>> = {
  name: "Text document",
  action: "Export text document",
  about: "For a word processor (DOCX): links with descriptions, bookmarks, tables and footnotes are kept.",
  options: docxOptions,
  Fields: CompanionsTick,
  words: (chosen) => [companionWords(chosen)],
};
