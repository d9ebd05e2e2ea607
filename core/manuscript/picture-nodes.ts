import type { Node } from "prosemirror-model";

const picturesOf = new WeakMap<Node, readonly Node[]>();

/** The pictures of a document, in reading order. Looked for once in each document, which never changes. */
export function pictureNodes(doc: Node): readonly Node[] {
  const known = picturesOf.get(doc);
  if (known) return known;
  const found: Node[] = [];
  doc.descendants((node) => {
    if (node.type.name === "picture") found.push(node);
    return !node.isLeaf;
  });
  picturesOf.set(doc, found);
  return found;
}
