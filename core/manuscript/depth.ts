import { levels } from "../levels.ts";

/** How deep lists, quotes and tables may lie within each other. */
export const deepestNest = 40;
/** A chapter's elements are deeper: a cell lies in a row of a table, words in a paragraph. */
const deepestChapter = 5 * deepestNest;
const wordsShown = 60;

interface Nested {
  content?: unknown;
  text?: unknown;
}

/** The words at which a document of JSON is deeper than a chapter may be; null where it is not. It takes any value. */
export function wordsTooDeep(json: unknown): string | null {
  let depth = 0;
  for (const level of levels(json, contentOf)) {
    if (depth++ <= deepestChapter) continue;
    const words = level.map((node) => (node as Nested | null)?.text).find((text) => typeof text === "string");
    if (words !== undefined) return (words as string).trim().slice(0, wordsShown);
  }
  return depth > deepestChapter + 1 ? "" : null;
}

function contentOf(node: unknown): unknown[] {
  const { content } = (node ?? {}) as Nested;
  return Array.isArray(content) ? content : [];
}
