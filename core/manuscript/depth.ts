/** How many levels of elements a chapter may have: some forty lists, tables or quotes in each other. */
export const deepestChapter = 200;

interface Nested {
  content?: unknown;
  text?: unknown;
}

/**
 * The words at which a document of JSON is deeper than a chapter may be; null where it is not. It reads any value,
 * however deep, without ever being as deep itself.
 */
export function wordsTooDeep(json: unknown): string | null {
  let level = [json];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > deepestChapter) return firstWords(level);
    const next: unknown[] = [];
    for (const node of level) {
      const { content } = (node ?? {}) as Nested;
      if (Array.isArray(content)) for (const child of content) next.push(child);
    }
    level = next;
  }
  return null;
}

const wordsShown = 60;

function firstWords(nodes: unknown[]): string {
  for (let level = nodes; level.length > 0;) {
    const next: unknown[] = [];
    for (const node of level) {
      const { content, text } = (node ?? {}) as Nested;
      if (typeof text === "string" && text.trim() !== "") return text.trim().slice(0, wordsShown);
      if (Array.isArray(content)) for (const child of content) next.push(child);
    }
    level = next;
  }
  return "";
}
