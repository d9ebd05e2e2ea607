import { Fragment, type Node } from "prosemirror-model";
import type { Destination } from "../destination/kinds/kinds.ts";
import type { Hotspot } from "./hotspot.ts";
import { newId } from "./ids.ts";

/** The nodes by whose ids others know them: places, and cross-references. */
export const withId: ReadonlySet<string> = new Set([
  "title",
  "heading",
  "anchor",
  "note",
  "caption",
  "signposts",
  "cross_reference",
]);

/** The ids that a piece of text carries. */
export function idsIn(content: Fragment): Set<string> {
  const ids = new Set<string>();
  content.descendants((node) => {
    if (withId.has(node.type.name)) ids.add(node.attrs["id"] as string);
  });
  return ids;
}

/**
 * A piece of text with a new id in place of each that is taken. What points from the piece to one of these
 * (links, cross-references, numbers of notes, lists) points to the new one, so that a copy is whole in
 * itself.
 */
export function withFreshIds(content: Fragment, isTaken: (id: string) => boolean): Fragment {
  const renewed = new Map<string, string>();
  for (const id of idsIn(content)) if (isTaken(id)) renewed.set(id, newId());
  return renewed.size === 0 ? content : renewFragment(content, renewed);
}

function renewFragment(content: Fragment, renewed: ReadonlyMap<string, string>): Fragment {
  const nodes: Node[] = [];
  content.forEach((node) => nodes.push(renewNode(node, renewed)));
  return Fragment.fromArray(nodes);
}

function renewNode(node: Node, renewed: ReadonlyMap<string, string>): Node {
  const to = (id: string | null): string | null => (id === null ? null : (renewed.get(id) ?? id));
  const led = <T extends { destination?: Destination }>(one: T): T =>
    one.destination?.kind === "place" && renewed.has(one.destination.target)
      ? { ...one, destination: { kind: "place", target: to(one.destination.target)! } }
      : one;
  const marks = node.marks.map((mark) => {
    const attrs = led(mark.attrs);
    return attrs === mark.attrs ? mark : mark.type.create(attrs);
  });
  if (node.isText) return node.mark(marks);
  const attrs = { ...node.attrs };
  if (withId.has(node.type.name)) attrs["id"] = to(attrs["id"] as string);
  if (node.type.name === "cross_reference") attrs["target"] = to(attrs["target"] as string);
  if (node.type.name === "note_reference") attrs["note"] = to(attrs["note"] as string);
  if (node.type.name === "picture") attrs["hotspots"] = (attrs["hotspots"] as Hotspot[]).map(led);
  if (node.type.name === "signposts") {
    attrs["section"] = to(attrs["section"] as string | null);
    attrs["anchors"] = (attrs["anchors"] as string[]).map(to);
  }
  return node.type.create(attrs, renewFragment(node.content, renewed), marks);
}
