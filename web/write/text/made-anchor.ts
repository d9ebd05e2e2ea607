import {
  Plugin,
  PluginKey,
  Selection,
  TextSelection,
  type EditorState,
  type Transaction,
} from "prosemirror-state";

/** An anchor that was just put in, and where the author was then. */
interface MadeAnchor {
  id: string;
  from: number;
  to: number;
}

const key = new PluginKey<MadeAnchor | null>("made-anchor");

/** Knows which anchor still waits for its name, until the cursor is somewhere else. */
export const madeAnchor = new Plugin<MadeAnchor | null>({
  key,
  state: {
    init: () => null,
    apply(transaction, known, _old, { selection }) {
      const made = (transaction.getMeta(key) as MadeAnchor | undefined) ?? known;
      if (!made || !("node" in selection)) return null;
      return {
        ...made,
        from: transaction.mapping.map(made.from),
        to: transaction.mapping.map(made.to),
      };
    },
  },
});

/** Tells that an anchor was put in while this was selected. */
export function tellMadeAnchor(change: Transaction, id: string, { from, to }: Selection): Transaction {
  return change.setMeta(key, { id, from, to });
}

/** Whether an anchor waits for its name. */
export function isJustMade(state: EditorState, id: string): boolean {
  return key.getState(state)?.id === id;
}

/** Goes back from an anchor to what was selected when it was put in, or behind it. */
export function leaveAnchor(state: EditorState): Transaction {
  const made = key.getState(state);
  const { from, to } = made ?? { from: state.selection.to, to: state.selection.to };
  const { doc } = state;
  return state.tr.setSelection(TextSelection.between(doc.resolve(from), doc.resolve(to)));
}
