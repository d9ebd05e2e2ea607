import type { SetBlock, SetInline } from "./set-data.ts";

/**
 * Sets each anchor that stands between words behind the first letter of those after it, or behind the mark of a note:
 * what has no width would stay behind at a line's end when they go on to the next line.
 */
export function withAnchorsHeld(words: SetInline[]): SetInline[] {
  const out: SetInline[] = [];
  for (let i = 0; i < words.length; i++) {
    const start = i;
    while (words[i]?.kind === "anchor") i++;
    const anchors = words.slice(start, i);
    const after = words[i];
    if (anchors.length > 0 && start > 0 && after) out.push(...heldBy(after, anchors));
    else out.push(...anchors, ...(after ? [after] : []));
  }
  return out;
}

function heldBy(item: SetInline, anchors: SetInline[]): SetInline[] {
  if (item.kind === "link") {
    const [first, ...rest] = item.content;
    return first ? [{ ...item, content: [...heldBy(first, anchors), ...rest] }] : [...anchors, item];
  }
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
  /^\s*[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]\p{M}*/u;
const words = new Intl.Segmenter("und", { granularity: "word" });

/** Where the first letter of a text ends; its first word, where letters change their shapes by those beside them. 0 where it begins with neither. */
function endOfFirst(text: string): number {
  const letter = standsAlone.exec(text);
  if (letter) return letter[0].length;
  for (const { segment, index, isWordLike } of words.segment(text))
    if (isWordLike) return index + segment.length;
    else if (segment.trim() !== "") return 0;
  return 0;
}

/** The labels of the anchors among some words, those in links too. */
export function anchorsIn(words: SetInline[]): string[] {
  return words.flatMap((item) => {
    if (item.kind === "anchor") return [item.label];
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
