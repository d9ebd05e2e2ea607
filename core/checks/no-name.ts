import { isSeen } from "../manuscript/seen-words.ts";
import type { LinkRule } from "./finding.ts";

/** A link without a name: a picture or an area of one with no text alternative, or signs that nobody sees. */
export const noName: LinkRule = {
  id: "no-name",
  title: "A link has no name",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4 and 4.1.2, failure F89, ACT rule c487ae (from memory)",
  find: ({ text, on }) => {
    if (isSeen(text)) return null;
    const what = on === "hotspot" ? "hotspot" : on === "picture" ? "picture" : "link";
    return what === "link"
      ? "The link has no words, so nobody can find it. Give it some, or remove it."
      : `This ${what} is a link and has no text alternative. Say where it leads.`;
  },
};
