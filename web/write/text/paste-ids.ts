import { idsIn, withFreshIds } from "@vennet/core/manuscript/fresh-ids";
import { Slice } from "prosemirror-model";
import { Plugin } from "prosemirror-state";
import { bookAround } from "./book-numbers";

/** The ids of what was cut last: they go where it is pasted first, in whichever chapter. */
let cut = new Set<string>();

/**
 * Text that is cut and pasted, or dragged, takes its places along; of text that is copied, each place gets
 * an id of its own.
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
      const here = idsIn(view.state.doc.content);
      const around = bookAround(view.state)?.index.places;
      const content = withFreshIds(
        slice.content,
        (id) => here.has(id) || (!cut.has(id) && (around?.has(id) ?? false)),
      );
      cut = new Set();
      return new Slice(content, slice.openStart, slice.openEnd);
    },
  },
});
