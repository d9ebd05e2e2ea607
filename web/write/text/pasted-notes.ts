import { idsIn, withFreshIds } from "@vennet/core/manuscript/fresh-ids";
import { schema } from "@vennet/core/manuscript/schema";
import { Fragment, Node, Slice } from "prosemirror-model";
import { Plugin, type EditorState } from "prosemirror-state";

/** The notes that are called in what was copied last, or is pasted now, by their ids. */
let copied = new Map<string, Node>();
/** Notes whose signs are about to be pasted. */
let waiting: Node[] = [];

/** Takes the notes of what another program put on the clipboard, whose signs are in what is pasted next. */
export function awaitNotes(notes: readonly Node[]): void {
  waiting = [...notes];
}

/** Puts the notes that are called in what goes to the clipboard at their signs. */
export function notesToClipboard(written: ParentNode): void {
  for (const { dataset } of written.querySelectorAll<HTMLElement>("sup[data-note]")) {
    const note = copied.get(dataset["note"]!);
    if (note) dataset["said"] = JSON.stringify(note.toJSON());
  }
}

/** Takes them from there, where this text was copied in another window. */
export function notesFromClipboard(read: ParentNode): void {
  copied = new Map();
  for (const { dataset } of read.querySelectorAll<HTMLElement>("sup[data-note][data-said]")) {
    try {
      const note = Node.fromJSON(schema, JSON.parse(dataset["said"]!));
      note.check();
      if (note.type === schema.nodes.note && note.attrs["id"] === dataset["note"])
        copied.set(dataset["note"]!, note);
    } catch {
      // What another program made of it is no note; the sign is told as one without.
    }
  }
}

/** What is pasted brings its notes: their signs stand where it is put, they themselves at the end of the chapter. */
export const pastedNotes = new Plugin({
  props: {
    handleDOMEvents: {
      copy: (view) => remember(view.state),
      cut: (view) => remember(view.state),
    },
    transformPasted(slice, view) {
      // Whoever copies a whole chapter has its notes in it.
      const here = new Set([...idsIn(view.state.doc.content), ...idsIn(slice.content)]);
      const notes = [...notesCalledIn(slice.content)].flatMap((id) =>
        here.has(id) ? [] : (copied.get(id) ?? []),
      );
      if (notes.length === 0) return slice;
      // Those of another chapter are copies, with ids of their own.
      const ids = new Set(notes.map(({ attrs }) => attrs["id"] as string));
      const whole = withFreshIds(slice.content.append(Fragment.from(notes)), (id) => ids.has(id)).content;
      waiting = whole.slice(-notes.length);
      return new Slice(Fragment.from(whole.slice(0, -notes.length)), slice.openStart, slice.openEnd);
    },
  },
  appendTransaction(transactions, _old, state) {
    if (waiting.length === 0 || !transactions.some(({ docChanged }) => docChanged)) return null;
    const called = notesCalledIn(state.doc.content);
    const notes = waiting.filter(({ attrs }) => called.has(attrs["id"] as string));
    waiting = [];
    return notes.length === 0 ? null : state.tr.insert(state.doc.content.size, notes);
  },
});

function remember({ doc, selection }: EditorState): boolean {
  const called = notesCalledIn(selection.content().content);
  copied = new Map(
    doc.children.flatMap((node): [string, Node][] =>
      node.type.name === "note" && called.has(node.attrs["id"] as string)
        ? [[node.attrs["id"] as string, node]]
        : [],
    ),
  );
  return false;
}

function notesCalledIn(content: Fragment): Set<string> {
  const ids = new Set<string>();
  content.descendants((node) => {
    if (node.type.name === "note_reference") ids.add(node.attrs["note"] as string);
  });
  return ids;
}
