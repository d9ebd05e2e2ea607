import { Plugin } from "prosemirror-state";

/** A press on the sign before a task says that it is done, or to do again. */
export const taskBoxes = new Plugin({
  props: {
    handleDOMEvents: {
      mousedown: (view, event) => {
        const item = event.target;
        // The sign is drawn beside the item's own words: a press on those has them as its target.
        if (!(item instanceof HTMLLIElement) || item.dataset["done"] === undefined) return false;
        const at = view.posAtDOM(item, 0) - 1;
        const node = view.state.doc.nodeAt(at);
        if (node?.type.name !== "list_item" || !view.editable) return false;
        event.preventDefault();
        view.dispatch(view.state.tr.setNodeAttribute(at, "done", node.attrs["done"] !== true));
        return true;
      },
    },
  },
});
