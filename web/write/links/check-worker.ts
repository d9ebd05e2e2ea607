import { checkChapter } from "@vennet/core/checks/check-chapter";
import type { Finding } from "@vennet/core/checks/finding";
import { contextIn, withOpenChapter, type Surroundings } from "@vennet/core/checks/surroundings";
import { readChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";

// Checks the open chapter beside the page, so that the rules never hold a key up.

/** What the rules need to know of the book around the chapter. */
export interface CheckBasis {
  /** The index of the chapter among those of the book. */
  chapter: number;
  surroundings: Surroundings;
}

/** What the page tells: the basis when it has changed, and the chapter to be checked by it. */
export type ToCheck = { basis: CheckBasis } | { turn: number; document: ChapterJson };

export interface Checked {
  turn: number;
  findings: Finding[];
}

let basis: CheckBasis | null = null;

self.addEventListener("message", ({ data }: MessageEvent<ToCheck>) => {
  if ("basis" in data) {
    basis = data.basis;
    return;
  }
  if (!basis) return;
  const { chapter, surroundings } = basis;
  const doc = readChapter(data.document);
  const findings = checkChapter(doc, contextIn(withOpenChapter(surroundings, chapter, doc), chapter));
  self.postMessage({ turn: data.turn, findings } satisfies Checked);
});
