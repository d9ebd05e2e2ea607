import type { Node } from "prosemirror-model";

/** A note with its number in the chapter and how often the text refers to it (0: no reference leads to it). */
export interface NumberedNote {
  id: string;
  number: number;
  references: number;
  /** For each reference, in the order of the text, the note in which it stands; null for one in the text itself. */
  standsIn: readonly (string | null)[];
  node: Node;
}

/**
 * The notes of a chapter, numbered from 1 in the order of their first reference. Notes that nothing
 * refers to come last.
 */
export function numberNotes(doc: Node): NumberedNote[] {
  const notes = notesIn(doc);
  if (notes.size === 0) return [];
  const references = referencesIn(doc, notes);
  return ordered(notes, references).map((id, i) => ({
    id,
    number: i + 1,
    references: references.get(id)?.length ?? 0,
    standsIn: references.get(id) ?? [],
    node: notes.get(id)!,
  }));
}

/** The ids of a chapter's notes, in the order of their numbers. */
export function orderNotes(doc: Node): string[] {
  const notes = notesIn(doc);
  return notes.size === 0 ? [] : ordered(notes, referencesIn(doc, notes));
}

function notesIn(doc: Node): Map<string, Node> {
  const notes = new Map<string, Node>();
  // Notes stand at the end of a chapter.
  for (let i = doc.childCount - 1; i >= 0 && doc.child(i).type.name === "note"; i--)
    notes.set(doc.child(i).attrs["id"] as string, doc.child(i));
  return new Map([...notes].reverse());
}

/** In what each reference stands, by the notes to which they lead. */
function referencesIn(doc: Node, notes: Map<string, Node>): Map<string, (string | null)[]> {
  const references = new Map<string, (string | null)[]>();
  for (const block of doc.children) {
    const within = block.type.name === "note" ? (block.attrs["id"] as string) : null;
    block.descendants((node) => {
      if (node.type.name !== "note_reference") return;
      const id = node.attrs["note"] as string;
      if (notes.has(id)) references.set(id, [...(references.get(id) ?? []), within]);
    });
  }
  return references;
}

function ordered(notes: Map<string, Node>, references: Map<string, unknown>): string[] {
  return [...references.keys(), ...[...notes.keys()].filter((id) => !references.has(id))];
}

/** The id at the `which`th reference (from 1) to a note: where the note's return link leads. */
export function referenceId(note: string, which: number): string {
  return `ref-${note}-${which}`;
}
