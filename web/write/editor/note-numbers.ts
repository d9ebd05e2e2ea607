import { numberNotes } from "@vennet/core/manuscript/notes";
import { Plugin } from "prosemirror-state";
import { Decoration, DecorationSet } from "prosemirror-view";

/** Shows at notes and their references the numbers that the exports will give them. */
export const noteNumbers = new Plugin<DecorationSet>({
  state: {
    init: (_config, state) => decorate(state.doc),
    apply: (transaction, value) => (transaction.docChanged ? decorate(transaction.doc) : value),
  },
  props: {
    decorations(state) {
      return this.getState(state);
    },
  },
});

function decorate(doc: Parameters<typeof numberNotes>[0]): DecorationSet {
  const numbers = new Map(numberNotes(doc).map((note) => [note.id, String(note.number)]));
  const marks: Decoration[] = [];
  doc.descendants((node, position) => {
    const id = (node.type.name === "note" ? node.attrs["id"] : node.attrs["note"]) as string | undefined;
    if (node.type.name !== "note" && node.type.name !== "note_reference") return;
    marks.push(
      Decoration.node(position, position + node.nodeSize, { "data-number": numbers.get(id!) ?? "?" }),
    );
  });
  return DecorationSet.create(doc, marks);
}
