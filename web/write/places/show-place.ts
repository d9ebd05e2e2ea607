import { referenceId } from "@vennet/core/manuscript/notes";
import type { Node } from "prosemirror-model";
import { NodeSelection, TextSelection } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { tellLinkMarks } from "../text/link-marks";
import { useTrail, type Footprint } from "./trail";

const litFor = 1_800;

/**
 * Scrolls to a place of the chapter that is open and lights it up for a moment, so that it is seen even
 * where nothing moves. False where the chapter has no such place.
 */
export function showPlace(view: EditorView, id: string): boolean {
  const found = positionOf(view.state.doc, id);
  if (found === null) return false;
  const $at = view.state.doc.resolve(found);
  // An anchor stands in its paragraph; a heading or title is the place itself.
  const isInline = $at.parent.isTextblock;
  const block = isInline ? $at.before() : found;
  const selection = TextSelection.near(view.state.doc.resolve(found + 1));
  view.dispatch(tellLinkMarks(view.state.tr.setSelection(selection), { lit: block }));
  view.focus();
  const element = view.nodeDOM(block);
  const scroller = view.dom.closest("[data-scroll]");
  if (element instanceof HTMLElement && scroller) {
    const [seen, at] = [scroller.getBoundingClientRect(), element.getBoundingClientRect()];
    scroller.scrollBy({ top: at.top - seen.top - seen.height / 3 });
  }
  setTimeout(() => {
    if (!view.isDestroyed) view.dispatch(tellLinkMarks(view.state.tr, { lit: null }));
  }, litFor);
  return true;
}

/** Where a place stands, or one of the references to a note, to which its return links lead. */
function positionOf(doc: Node, id: string): number | null {
  let found: number | null = null;
  const counts = new Map<string, number>();
  doc.descendants((node, position) => {
    let own = node.attrs["id"] as string | undefined;
    if (node.type.name === "note_reference") {
      const note = node.attrs["note"] as string;
      counts.set(note, (counts.get(note) ?? 0) + 1);
      own = referenceId(note, counts.get(note)!);
    }
    if (found === null && own === id) found = position;
    return found === null;
  });
  return found;
}

/** Remembers where the author is, for the way back. */
export function leaveFootprint(view: EditorView, chapterId: string): void {
  const { from, to } = view.state.selection;
  const scrolled = view.dom.closest("[data-scroll]")?.scrollTop ?? 0;
  useTrail.getState().leave({ chapterId, from, to, scrolled });
}

/** Goes to some words of the chapter that is open: with the very lines that were seen, or wherever they stand. */
export function showFootprint(
  view: EditorView,
  { from, to, scrolled }: Pick<Footprint, "from" | "to"> & { scrolled: number | null },
): void {
  const size = view.state.doc.content.size;
  const [start, end] = [Math.min(from, size), Math.min(to, size)];
  const node = view.state.doc.nodeAt(start);
  const isNode = node !== null && node.isInline && !node.isText && end === start + node.nodeSize;
  const selection = isNode
    ? NodeSelection.create(view.state.doc, start)
    : TextSelection.between(view.state.doc.resolve(start), view.state.doc.resolve(end));
  const moved = view.state.tr.setSelection(selection);
  view.dispatch(scrolled === null ? moved.scrollIntoView() : moved);
  view.focus();
  if (scrolled !== null) view.dom.closest("[data-scroll]")?.scrollTo({ top: scrolled });
}
