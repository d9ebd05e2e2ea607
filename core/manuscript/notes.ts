import type { Node } from "prosemirror-model";

/** A note with its number and how often the text refers to it (0: no reference leads to it). */
export interface NumberedNote {
  id: string;
  number: number;
  references: number;
  node: Node;
}

/**
 * The notes of a chapter, numbered from 1 in the order of their first reference. Notes that nothing
 * refers to come last.
 */
export function numberNotes(doc: Node): NumberedNote[] {
  const notes = new Map<string, Node>();
  doc.forEach((node) => {
    if (node.type.name === "note") notes.set(node.attrs["id"] as string, node);
  });
  const references = new Map<string, number>();
  doc.descendants((node) => {
    if (node.type.name !== "note_reference") return;
    const id = node.attrs["note"] as string;
    if (notes.has(id)) references.set(id, (references.get(id) ?? 0) + 1);
  });
  const ordered = [...references.keys(), ...[...notes.keys()].filter((id) => !references.has(id))];
  return ordered.map((id, i) => ({
    id,
    number: i + 1,
    references: references.get(id) ?? 0,
    node: notes.get(id)!,
  }));
}
