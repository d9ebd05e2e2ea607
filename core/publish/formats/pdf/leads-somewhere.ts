import type { Node } from "prosemirror-model";
import { pictureAttrs } from "../../../manuscript/attributes.ts";
import { linkOn } from "../../../manuscript/schema.ts";

/** Whether links, notes or cross-references stand in something. */
export function leadsSomewhere(node: Node): boolean {
  let found = false;
  node.descendants((inner) => {
    const { name } = inner.type;
    const isWay = name === "note_reference" || name === "cross_reference" || linkOn(inner) !== null;
    found ||= isWay || (name === "picture" && pictureAttrs(inner).hotspots.length > 0);
    return !found;
  });
  return found;
}
