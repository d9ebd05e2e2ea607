import type { LinkRule } from "./finding.ts";

/** A link that covers a blank before or after its words. */
export const outerBlank: LinkRule = {
  id: "outer-blank",
  title: "A link begins or ends with a blank",
  severity: "fix",
  source: "common practice: the link covers the words alone",
  find: ({ text, on }) =>
    on === "words" && text.trim() !== "" && text !== text.trim()
      ? "A blank at the link's end is linked too, and is underlined. Trim it."
      : null,
  // In a file that stays as it is the blank is not the link’s alone.
  mend: (_link, { keepsAnchors = false }) => (keepsAnchors ? null : { trim: true }),
};
