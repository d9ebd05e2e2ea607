import { giveOwnIds } from "@vennet/core/manuscript/edit-links";
import { idsIn } from "@vennet/core/manuscript/fresh-ids";
import { Plugin } from "prosemirror-state";

/**
 * Gives every pasted copy, split heading and torn link an id of its own, after each change. The chapter's title keeps
 * the one that it has, whatever comes in its place.
 */
export const uniqueIds = new Plugin({
  appendTransaction(transactions, old, state) {
    if (!transactions.some((transaction) => transaction.docChanged)) return null;
    const change = state.tr;
    const id = old.doc.firstChild!.attrs["id"] as string;
    const title = state.doc.firstChild!;
    if (id !== "unset" && title.attrs["id"] !== id && !idsIn(state.doc.content).has(id))
      change.setNodeAttribute(0, "id", id);
    giveOwnIds(change);
    // Taken back with what it follows from: a link that was torn is one again then.
    return change.docChanged ? change : null;
  },
});
