import { odtOptions } from "@vennet/core/publish/formats/odt/options";
import type { Chosen } from "@vennet/core/publish/formats/option";
import type { FormatOnScreen } from "./format-on-screen";
import { CompanionsTick, companionWords } from "./tick";

export const odt: FormatOnScreen<Chosen<typeof odtOptions>> = {
  name: "OpenDocument text",
  action: "Export OpenDocument text",
  about:
    "For a word processor (ODT): links with descriptions, bookmarks, tables, footnotes and formulas are kept.",
  options: odtOptions,
  Fields: CompanionsTick,
  words: (chosen) => [companionWords(chosen)],
};
