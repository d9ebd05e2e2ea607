import { firstAt } from "@vennet/core/manuscript/first-at";
import { hotspotBox } from "@vennet/core/manuscript/hotspot";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { pictureAttrs } from "@vennet/core/manuscript/attributes";
import type { EditorView } from "prosemirror-view";

/** How far beyond the window links count as in view, in pixels, so that scrolling finds their cards there. */
const outOfView = 400;

/**
 * The links whose lines are in the window, or near it. Positions grow with the document, so a few
 * measurements find the ends of the range, however many links there are.
 */
export function linksInView(
  view: EditorView,
  uses: readonly LinkUse[],
  window: { top: number; bottom: number },
  beyond = outOfView,
): LinkUse[] {
  const topOf = (use: LinkUse): number => view.coordsAtPos(use.from, 1).top;
  const first = firstAt(uses, (use) => topOf(use) >= window.top - beyond);
  const last = firstAt(uses, (use) => topOf(use) > window.bottom + beyond);
  return uses.slice(first, last);
}

/** The top and bottom of a link's first line, of its picture, or of its area of one, in the window. */
export function lineOf(view: EditorView, use: LinkUse): { top: number; bottom: number } {
  const element = use.on === "words" ? null : view.nodeDOM(use.from);
  if (!(element instanceof HTMLElement)) return view.coordsAtPos(use.from, 1);
  const { top, height } = element.getBoundingClientRect();
  const hotspot =
    use.on === "hotspot" &&
    pictureAttrs(view.state.doc.nodeAt(use.from)!).hotspots.find(({ id }) => id === use.id);
  if (!hotspot) return { top, bottom: top + Math.min(height, 24) };
  const box = hotspotBox(hotspot);
  const middle = top + (box.y + box.height / 2) * height;
  return { top: middle - 10, bottom: middle };
}
