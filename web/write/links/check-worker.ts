import { checkChapter } from "@vennet/core/checks/check-chapter";
import type { Finding } from "@vennet/core/checks/finding";
import { contextIn, withOpenChapter, type Surroundings } from "@vennet/core/checks/surroundings";
import { withChangedBlocks, type ChangedBlocks } from "@vennet/core/manuscript/changed-blocks";
import { readChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";
import type { Node } from "prosemirror-model";

// Checks the open chapter beside the page, so that the rules never hold a key up.

/** What the rules need to know of the book around the chapter. */
export interface CheckBasis {
  /** The index of the chapter among those of the book. */
  chapter: number;
  surroundings: Surroundings;
}

/** What the page tells: the basis when it has changed, and the chapter to be checked by it, whole or what it has changed. */
export type ToCheck =
  { basis: CheckBasis } | { turn: number; document: ChapterJson } | { turn: number; changed: ChangedBlocks };

export interface Checked {
  turn: number;
  findings: Finding[];
}

let basis: CheckBasis | null = null;
let doc: Node | null = null;

self.addEventListener("message", ({ data }: MessageEvent<ToCheck>) => {
  if ("basis" in data) {
    basis = data.basis;
    return;
  }
  if (!basis) return;
  const { chapter, surroundings } = basis;
  doc = "document" in data ? readChapter(data.document) : withChangedBlocks(doc!, data.changed);
  const findings = checkChapter(doc, contextIn(withOpenChapter(surroundings, chapter, doc), chapter));
  self.postMessage({ turn: data.turn, findings } satisfies Checked);
});
