import { idsIn, withFreshIds } from "@vennet/core/manuscript/fresh-ids";
import { schema } from "@vennet/core/manuscript/schema";
import { Fragment, Slice, type Node } from "prosemirror-model";
import { Plugin, type EditorState } from "prosemirror-state";
import { bookAround } from "./book-numbers";

/** The ids of what was cut last: they go where it is pasted first, in whichever chapter. */
let cut = new Set<string>();

/**
 * Text that is cut and pasted, or dragged, takes its places along; of text that is copied, each place gets
 * an id of its own, unless it takes the place of what it is a copy of.
 */
export const pasteIds = new Plugin({
  props: {
    handleDOMEvents: {
      cut(view) {
        cut = idsIn(view.state.selection.content().content);
        return false;
      },
      copy() {
        cut = new Set();
        return false;
      },
    },
    transformPasted(slice, view) {
      if (view.dragging?.move) return slice;
      const content = withIdsForPaste(slice.content, view.state, cut);
      cut = new Set();
      return new Slice(content, slice.openStart, slice.openEnd);
    },
  },
});

/** What is pasted, with the ids that its places get where it takes the place of the selection. */
export function withIdsForPaste(content: Fragment, state: EditorState, moved: ReadonlySet<string>): Fragment {
  const own = idsIn(state.doc.content);
  const here = new Set(own);
  const replaced = replacedPlaces(state);
  for (const node of replaced) here.delete(node.attrs["id"] as string);
  const around = bookAround(state)?.index.places;
  const isElsewhere = (id: string): boolean => !own.has(id) && !moved.has(id) && (around?.has(id) ?? false);
  const fresh = withFreshIds(content, (id) => here.has(id) || isElsewhere(id));
  // A program that text went through keeps its words and not its ids.
  const arrived = idsIn(fresh);
  const free = replaced.filter(
    ({ type, attrs }) => type === schema.nodes.heading && !arrived.has(attrs["id"] as string),
  );
  return free.length > 0 ? withIdsByWords(fresh, free) : fresh;
}

/** The places whose words are all selected: what is pasted takes theirs. */
function replacedPlaces({ doc, selection }: EditorState): Node[] {
  const found: Node[] = [];
  for (const { $from, $to } of selection.ranges) {
    doc.nodesBetween($from.pos, $to.pos, (node, position) => {
      const [start, end] = node.isLeaf
        ? [position, position + node.nodeSize]
        : [position + 1, position + node.nodeSize - 1];
      if (typeof node.attrs["id"] === "string" && $from.pos <= start && end <= $to.pos && start < end)
        found.push(node);
    });
  }
  return found;
}

/** Headings without an id get that of the heading with the same words that they take the place of, each once. */
function withIdsByWords(content: Fragment, free: Node[]): Fragment {
  const left = [...free];
  const nodes = content.content.map((node) => {
    if (node.type !== schema.nodes.heading)
      return node.isLeaf || node.isTextblock ? node : node.copy(withIdsByWords(node.content, left));
    if (node.attrs["id"] !== "unset") return node;
    const at = left.findIndex(({ textContent }) => textContent.trim() === node.textContent.trim());
    if (at === -1) return node;
    const [same] = left.splice(at, 1);
    return node.type.create({ ...node.attrs, id: same!.attrs["id"] as string }, node.content, node.marks);
  });
  return Fragment.fromArray(nodes);
}
