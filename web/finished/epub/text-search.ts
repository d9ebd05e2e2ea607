import { literalPattern } from "@vennet/core/manuscript/literal-pattern";
import { useMemo, useState } from "react";

/** Words that are sought in an e-book. */
export interface TextSearch {
  typed: string;
  /** From and to which letters of the page that is shown they stand. */
  found: readonly (readonly [from: number, to: number])[];
  told: string;
  type: (words: string) => void;
  /** The next page on which they stand, from the one that is shown; null where there is none. */
  nextPage: () => number | null;
}

/** Finds words on the page that is shown, and from there on through the e-book. @param texts of all pages */
export function useTextSearch(texts: (number: number) => string, pages: number, number: number): TextSearch {
  const [typed, setTyped] = useState("");
  const [missed, setMissed] = useState(false);
  const found = useMemo(() => stretchesOf(texts(number), typed), [texts, number, typed]);
  return {
    typed,
    found,
    told: missed ? "These words stand on no page." : `${found.length} here`,
    type: (words) => {
      setTyped(words);
      setMissed(false);
    },
    nextPage: () => {
      for (let i = 1; i <= pages; i++) {
        const at = ((number - 1 + i) % pages) + 1;
        if (stretchesOf(texts(at), typed).length > 0) return at;
      }
      setMissed(true);
      return null;
    },
  };
}

/** Where words stand in a text; blanks and line ends between them are one, and case does not matter. */
export function stretchesOf(text: string, words: string): (readonly [number, number])[] {
  const sought = words.trim();
  if (sought === "") return [];
  const pattern = sought.split(/\s+/).map(literalPattern);
  return [...text.matchAll(new RegExp(pattern.join("\\s+"), "giu"))].map(
    ({ 0: { length }, index }) => [index, index + length] as const,
  );
}
