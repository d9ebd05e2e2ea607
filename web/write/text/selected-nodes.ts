import { schema } from "@vennet/core/manuscript/schema";
import { NodeSelection, Plugin, TextSelection } from "prosemirror-state";

/**
 * What is typed while a picture, an anchor or a list is selected stands behind it; only the keys for deleting take it
 * away.
 */
export const selectedNodes = new Plugin({
  props: {
    handleTextInput({ state, dispatch }, _from, _to, typed) {
      const { selection } = state;
      if (!(selection instanceof NodeSelection)) return false;
      const words = schema.text(typed);
      const { to } = selection;
      const change = selection.node.isInline
        ? state.tr.insert(to, words)
        : state.tr.insert(to, schema.node("paragraph", null, words));
      dispatch(
        change
          .setSelection(TextSelection.near(change.doc.resolve(to + typed.length + 1), -1))
          .scrollIntoView(),
      );
      return true;
    },
  },
});
