import { newId } from "@vennet/core/manuscript/ids";
import { linkUses } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import { Plugin } from "prosemirror-state";

const withId = new Set(["title", "heading", "anchor", "note"]);

/**
 * Gives every link and landing place an id of its own: a pasted copy, the second half of a split
 * heading, and a link whose words were torn apart get new ones. The first keeps the old id.
 */
export const uniqueIds = new Plugin({
  appendTransaction(transactions, _old, state) {
    if (!transactions.some((transaction) => transaction.docChanged)) return null;
    const change = state.tr;
    const seen = new Set<string>();
    state.doc.descendants((node, position) => {
      if (!withId.has(node.type.name)) return;
      const id = node.attrs["id"] as string;
      if (id !== "unset" && !seen.has(id)) seen.add(id);
      else change.setNodeAttribute(position, "id", newId());
    });
    const links = new Set<string>();
    for (const use of linkUses(state.doc)) {
      if (!links.has(use.id)) {
        links.add(use.id);
        continue;
      }
      const { destination, description } = use;
      change.addMark(use.from, use.to, schema.mark("link", { id: newId(), destination, description }));
    }
    return change.docChanged ? change.setMeta("addToHistory", false) : null;
  },
});
