import type { Node } from "prosemirror-model";
import { readChapter, writeChapter } from "../../manuscript/chapter.ts";

/** What the author wrote, in which no id is looked for. */
const words = new Set(["text", "alt", "description", "name", "address", "heading", "source", "path"]);

/** A document with other ids in place of some, wherever they stand: of places, links, notes and files. */
export function withKnownIds(doc: Node, known: ReadonlyMap<string, string>): Node {
  if (known.size === 0) return doc;
  const visit = (value: unknown, key: string): unknown => {
    if (typeof value === "string") return words.has(key) ? value : (known.get(value) ?? value);
    if (Array.isArray(value)) return value.map((one) => visit(one, key));
    if (value === null || typeof value !== "object") return value;
    return Object.fromEntries(Object.entries(value).map(([name, one]) => [name, visit(one, name)]));
  };
  return readChapter(visit(writeChapter(doc), ""));
}
