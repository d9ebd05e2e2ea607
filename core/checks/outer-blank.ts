import type { LinkRule } from "./finding.ts";

/** A link that covers a blank before or after its words. */
export const outerBlank: LinkRule = {
  id: "outer-blank",
  title: "A link begins or ends with a blank",
  severity: "fix",
  source: "common practice: the link covers the words alone",
  find: (links) =>
    links.flatMap(({ id, text, on }) =>
      on === "words" && text.trim() !== "" && text !== text.trim()
        ? [{ subject: id, message: "A blank at the link's end is linked too, and is underlined. Trim it." }]
        : [],
    ),
  mend: ({ text, parts }) => (parts.length === 1 ? { text: text.trim() } : null),
};
