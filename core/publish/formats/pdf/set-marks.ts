import type { ByWordMark } from "../../../manuscript/word-marks.ts";
import type { SetMark } from "./set-data.ts";

/** How the template calls each way in which words can be shown. */
export const setMarks: ByWordMark<SetMark> = {
  strong: "strong",
  emphasis: "emphasis",
  code: "code",
  superscript: "raised",
  subscript: "lowered",
  strike: "struck",
  underline: "underlined",
  small_caps: "small-capitals",
};
