import type { Destination } from "../destination/kinds/kinds.ts";
import type { LinkAlone } from "./finding.ts";

/** Words as they are compared: in lower case, each run of blanks as one, and none at the ends. */
export function foldedWords(text: string): string {
  const isPlain = !/^\s|\s$|\s\s|[^\S ]/.test(text);
  return (isPlain ? text : text.replace(/\s+/g, " ").trim()).toLowerCase();
}

const folded = new WeakMap<Destination, { text: string; words: string }>();

/** A link's words as they are compared, folded once for all who compare them. */
export function wordsOf({ text, destination }: Pick<LinkAlone, "text" | "destination">): string {
  const known = folded.get(destination);
  if (known?.text === text) return known.words;
  const words = foldedWords(text);
  folded.set(destination, { text, words });
  return words;
}
