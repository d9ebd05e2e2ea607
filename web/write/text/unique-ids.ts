import { giveOwnIds } from "@vennet/core/manuscript/edit-links";
import { Plugin } from "prosemirror-state";

/** Gives every pasted copy, split heading and torn link an id of its own, after each change. */
export const uniqueIds = new Plugin({
  appendTransaction(transactions, _old, state) {
    if (!transactions.some((transaction) => transaction.docChanged)) return null;
    const change = state.tr;
    giveOwnIds(change);
    return change.docChanged ? change.setMeta("addToHistory", false) : null;
  },
});
