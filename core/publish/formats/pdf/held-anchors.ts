import { pictureAt } from "./pictures-in-lines.ts";
import type { SetBlock, SetInline } from "./set-data.ts";

/**
 * Sets each anchor that stands between words behind the first letter of those after it, or behind the mark of a note:
 * what has no width would stay behind at a line's end when they go on to the next line. Signs and ends of lines before that
 * letter are passed over. Before a picture it is at the picture's upper edge: a line is where it ends.
 */
export function withAnchorsHeld(words: SetInline[]): SetInline[] {
  const out: SetInline[] = [];
  let waiting: SetInline[] = [];
  for (const item of words) {
    const isWaiting = waiting.length > 0;
    if (item.kind === "anchor" && out.length > 0) waiting.push(item);
    else if (
      isWaiting &&
      (item.kind === "break" || (item.kind === "text" && !/[\p{L}\p{N}]/u.test(item.words)))
    )
      out.push(item);
    else {
      if (pictureAt(item)) while (out.at(-1)?.kind === "anchor") waiting.unshift(out.pop()!);
      out.push(...(waiting.length > 0 ? heldBy(item, waiting) : [item]));
      waiting = [];
    }
  }
  // Behind the end of the last line would be one more.
  const last = out.findLastIndex(({ kind }) => kind !== "break") + 1;
  return [...out.slice(0, last), ...waiting, ...out.slice(last)];
}

function heldBy(item: SetInline, anchors: SetInline[]): SetInline[] {
  if (item.kind === "link") {
    const [first, ...rest] = item.content;
    return first ? [{ ...item, content: [...heldBy(first, anchors), ...rest] }] : [...anchors, item];
  }
  if (item.kind === "picture") return [{ ...item, places: [...anchorsIn(anchors), ...item.places] }];
  if (item.kind === "note" || item.kind === "note-again") return [item, ...anchors];
  const end = item.kind === "text" ? endOfFirst(item.words) : 0;
  if (item.kind !== "text" || end === 0 || end === item.words.length) return [...anchors, item];
  return [
    { ...item, words: item.words.slice(0, end) },
    ...anchors,
    { ...item, words: item.words.slice(end) },
  ];
}

const standsAlone =
  /^[^\p{L}]*[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]\p{M}*/u;
const words = new Intl.Segmenter("und", { granularity: "word" });

/** Where the first letter of a text ends; its first word, where letters change their shapes by those beside them, or where it has none. */
function endOfFirst(text: string): number {
  const letter = standsAlone.exec(text);
  if (letter) return letter[0].length;
  for (const { segment, index, isWordLike } of words.segment(text))
    if (isWordLike) return index + segment.length;
  return 0;
}

/** The labels of the anchors among some words, those in links too. */
export function anchorsIn(words: SetInline[]): string[] {
  return words.flatMap((item) => {
    if (item.kind === "anchor") return [item.label];
    if (item.kind === "picture") return item.places;
    return item.kind === "link" ? anchorsIn(item.content) : [];
  });
}

/** The words without their anchors. */
export function withoutAnchors(words: SetInline[]): SetInline[] {
  return words
    .filter((item) => item.kind !== "anchor")
    .map((item) => (item.kind === "link" ? { ...item, content: withoutAnchors(item.content) } : item));
}

/** Puts a landing place before the words of the first paragraph of some blocks; false where they have none. */
export function placedInWords(blocks: SetBlock[], label: string): boolean {
  for (const block of blocks) {
    if (block.kind === "paragraph") {
      block.content.unshift({ kind: "anchor", label });
      return true;
    }
    const inner =
      block.kind === "quote"
        ? [block.content]
        : "items" in block
          ? block.items
          : block.kind === "definitions"
            ? block.entries.map(({ meaning }) => meaning)
            : [];
    if (inner.some((some) => placedInWords(some, label))) return true;
  }
  return false;
}
