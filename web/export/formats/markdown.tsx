import { markdownOptions } from "@vennet/core/publish/formats/markdown/options";
import type { Chosen } from "@vennet/core/publish/formats/option";
import type { FormatOnScreen } from "./format-on-screen";
import { CompanionsTick, companionWords } from "./tick";

export const markdown: FormatOnScreen<Chosen<typeof markdownOptions>> = {
  name: "Markdown",
  action: "Export Markdown",
  about: "For going on elsewhere: links with descriptions, anchors, tables and footnotes are kept.",
  options: markdownOptions,
  Fields: CompanionsTick,
  words: (chosen) => [companionWords(chosen)],
};
