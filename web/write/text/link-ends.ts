import { linkUses } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import { Plugin, type Transaction } from "prosemirror-state";
import { ReplaceStep } from "prosemirror-transform";

/** A letter that is typed where the last one of a link was just deleted is the link's. */
export const linkEnds = new Plugin({
  appendTransaction(transactions, old, state) {
    const { $from, empty } = state.selection;
    if (!transactions.some(deletes) || !empty || state.storedMarks) return null;
    const link = schema.marks.link!.isInSet($from.nodeBefore?.marks ?? []);
    if (!link) return null;
    const isIt = ({ id }: { id: string }): boolean => id === link.attrs["id"];
    const [was, now] = [linkUses(old.doc).find(isIt), linkUses(state.doc).find(isIt)];
    if (!was || !now || now.to !== $from.pos || was.text.length <= now.text.length) return null;
    return state.tr.setStoredMarks($from.nodeBefore!.marks);
  },
});

const deletes = ({ steps }: Transaction): boolean =>
  steps.some((step) => step instanceof ReplaceStep && step.slice.size === 0);
