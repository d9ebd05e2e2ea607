import type { LinkRule } from "./finding.ts";

/** A link that nobody can see, since it looks like the text around it. */
export const looksLikeText: LinkRule = {
  id: "looks-like-text",
  title: "A link looks like the text around it",
  severity: "consider",
  source: "WCAG 2.2 SC 1.4.1, failure F73",
  find: ({ asText }) =>
    asText
      ? "The link looks like the text around it, so readers may not find it. Give it the look of its kind, or accept it."
      : null,
};
