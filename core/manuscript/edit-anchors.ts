import type { Node } from "prosemirror-model";
import type { Transform } from "prosemirror-transform";
import { schema } from "./schema.ts";
import { ManuscriptError } from "./errors.ts";
import { signpostAttrs } from "./attributes.ts";
import { resolved } from "./positions.ts";

/** The position of an anchor in a chapter, or null. */
export function anchorAt(doc: Node, id: string): number | null {
  let found: number | null = null;
  doc.descendants((node, position) => {
    if (node.type.name === "anchor" && node.attrs["id"] === id) found = position;
    return found === null;
  });
  return found;
}

/**
 * Gives an anchor another name. Its id stays, so every link goes on leading to it, and no word that a
 * reader sees is changed (common practice).
 * @throws ManuscriptError `anchor` where the chapter has no such anchor
 */
export function renameAnchor(change: Transform, id: string, name: string): void {
  change.setNodeAttribute(positionOf(change.doc, id), "name", name);
}

/** The id of the place at which words stand that begin at a position: their heading, or an anchor before them; or null. */
export function placeAt(doc: Node, position: number): string | null {
  const { parent, before } = resolved(doc, position);
  if (["title", "heading", "caption"].includes(parent.type.name)) return parent.attrs["id"] as string;
  return before?.type.name === "anchor" ? (before.attrs["id"] as string) : null;
}

/**
 * Puts an anchor before words, named by them.
 * @throws ManuscriptError `anchor` where none can stand: outside of the chapter, or in a listing
 */
export function putAnchor(change: Transform, from: number, to: number, id: string): void {
  const { doc } = change;
  const isIn = from >= 0 && from <= to && to <= doc.content.size;
  const parent = isIn ? resolved(doc, from).parent : null;
  if (!parent?.inlineContent || parent.type.spec.code)
    throw new ManuscriptError("anchor", "No anchor can stand there.");
  const name = doc.textBetween(from, to, " ", " ").trim().slice(0, 100);
  change.insert(from, schema.node("anchor", { id, name }));
}

/**
 * Takes an anchor out of a chapter; the text around it stays.
 * @throws ManuscriptError `anchor` where the chapter has no such anchor
 */
export function removeAnchor(change: Transform, id: string): void {
  const position = positionOf(change.doc, id);
  change.delete(position, position + 1);
}

/**
 * Makes signpost lists that chose a place, or are about its section, follow another: `to`, or none. Links and
 * cross-references are changed as links are.
 */
export function replaceInLists(change: Transform, id: string, to: string | null): void {
  change.doc.descendants((node, position) => {
    if (node.type.name !== "signposts") return;
    const { anchors, section } = signpostAttrs(node);
    if (anchors.includes(id)) {
      const next = anchors.flatMap((one) => (one !== id ? [one] : to === null ? [] : [to]));
      change.setNodeAttribute(position, "anchors", [...new Set(next)]);
    }
    if (section === id && to !== null) change.setNodeAttribute(position, "section", to);
  });
}

function positionOf(doc: Node, id: string): number {
  const position = anchorAt(doc, id);
  if (position === null) throw new ManuscriptError("anchor", "The chapter has no such anchor.");
  return position;
}
