import type { Frame } from "../manuscript/hotspot.ts";

/** From left to right and from top to bottom, in CSS px of a page at its own size. */
export interface BoxOnPage {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A link of a page, as it lies there. */
export interface LinkOnPage {
  id: string;
  /** What it is called where others are told of it; may be empty. */
  name: string;
  /** Where it leads, as destinations are written. */
  to: string;
  isOnWords: boolean;
  /** One for each line that it runs over. */
  boxes: readonly BoxOnPage[];
  frame: Frame;
  /** Whether a tagged file has it in its structure; so it is of one that is not tagged. */
  isInStructure: boolean;
}

/** What rules are told of a page of a finished file beside the words and destinations of its links. */
export interface PageOfFile {
  /** Whether nothing is painted on it. */
  isBlank: boolean;
  links: readonly LinkOnPage[];
  /** What else of it is a link, and leads no reader anywhere, each with the reason. */
  dead: readonly { id: string; words: string; why: string }[];
}

/** The page that is checked; undefined where it is a chapter of a manuscript. */
export function checkedPage({
  pages,
  chapter,
}: {
  pages?: readonly (PageOfFile | undefined)[];
  chapter: number;
}): PageOfFile | undefined {
  return pages?.[chapter];
}

/** The box around boxes. */
export function around(boxes: readonly BoxOnPage[]): BoxOnPage {
  return {
    left: Math.min(...boxes.map(({ left }) => left)),
    top: Math.min(...boxes.map(({ top }) => top)),
    right: Math.max(...boxes.map(({ right }) => right)),
    bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
  };
}
