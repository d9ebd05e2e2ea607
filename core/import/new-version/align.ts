import type { Node } from "prosemirror-model";
import { gapsBetween } from "../../manuscript/list-gaps.ts";

/** A thing of the text that is known, and the one of a new version that it has become. */
export type Pair<T> = readonly [known: T, arrived: T];

/**
 * Pairs what two lists have in common: what is alike by a key, in its order; of what stands between, those that have
 * most words in common.
 */
export function align<T>(
  known: readonly T[],
  arrived: readonly T[],
  keyOf: (one: T) => string,
  wordsOf: (one: T) => string,
): Pair<T>[] {
  const pairs: Pair<T>[] = [];
  let [a, b] = [0, 0];
  const sameUntil = (from: number): void => {
    while (a < from) pairs.push([known[a++]!, arrived[b++]!]);
  };
  for (const { from, to, start, end } of gapsBetween(known.map(keyOf), arrived.map(keyOf))) {
    sameUntil(from);
    pairs.push(...alikeOf(known.slice(from, to), arrived.slice(start, end), wordsOf));
    [a, b] = [to, end];
  }
  sameUntil(known.length);
  return pairs;
}

/** So much of the words of two is the same, where one has become the other. */
const alike = 0.4;

const shortText = 8;

function alikeOf<T>(known: readonly T[], arrived: readonly T[], wordsOf: (one: T) => string): Pair<T>[] {
  const pairs: Pair<T>[] = [];
  const words = known.map((one) => wordSet(wordsOf(one)));
  // A gap of very many is looked through near the same place alone.
  const reach = known.length * arrived.length > 40_000 ? 50 : Infinity;
  let from = 0;
  for (const [at, one] of arrived.entries()) {
    const own = wordSet(wordsOf(one));
    let best = -1;
    let share = alike;
    for (let i = from; i < known.length && i - from < reach; i++) {
      const common = commonShare(words[i]!, own);
      if (common > share || (common === share && best === -1)) [best, share] = [i, common];
    }
    // One that stands alone where another one stood has become it.
    if (best === -1 && known.length === 1 && arrived.length === 1 && at === 0 && own.size > 0) best = 0;
    if (best === -1) continue;
    pairs.push([known[best]!, one]);
    from = best + 1;
  }
  return pairs;
}

/** The words of a text, each once. */
export function wordSet(text: string): Set<string> {
  return new Set(text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
}

/** How many words two texts have in common, from 0 to 1. */
export function commonShare(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 || b.size === 0) return 0;
  let common = 0;
  for (const word of b) if (a.has(word)) common += 1;
  const [fewer, more] = [Math.min(a.size, b.size), Math.max(a.size, b.size)];
  // A short text that has grown, as a heading, is still the same.
  return common === fewer && more <= shortText ? Math.max(common / more, 0.45) : common / more;
}

/** The blocks of words of a document, in order: paragraphs, headings, captions, in lists, tables and notes too. */
export function textblocksOf(doc: Node): Node[] {
  const found: Node[] = [];
  doc.descendants((node) => {
    if (node.isTextblock) found.push(node);
    return !node.isTextblock;
  });
  return found;
}

/** The words of a block apart from how they are shown. */
export function blockWords(block: Node): string {
  return block.textBetween(0, block.content.size, " ", " ").replace(/\s+/g, " ").trim();
}
