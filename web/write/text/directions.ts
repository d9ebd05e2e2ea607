import { turnedDirection, type Direction } from "@vennet/core/manuscript/direction";
import type { Node } from "prosemirror-model";
import { Plugin } from "prosemirror-state";
import { Decoration, DecorationSet } from "prosemirror-view";

/** Shows each block that is read in the other direction than the book as the exports will have it. */
export function directions(book: Direction): Plugin<DecorationSet> {
  const plugin: Plugin<DecorationSet> = new Plugin<DecorationSet>({
    state: {
      init: (_, { doc }) => DecorationSet.create(doc, turnedIn(doc, 0, doc.content.size, book)),
      apply(transaction, before) {
        if (!transaction.docChanged) return before;
        const { doc, mapping } = transaction;
        let set = before.map(mapping, doc);
        // Only the blocks that were changed are judged again.
        mapping.maps.forEach((map, i) =>
          map.forEach((_from, _to, from, to) => {
            const rest = mapping.slice(i + 1);
            const [$start, $end] = [doc.resolve(rest.map(from, -1)), doc.resolve(rest.map(to, 1))];
            const start = $start.depth > 0 ? $start.before(1) : $start.pos;
            const end = $end.depth > 0 ? $end.after(1) : $end.pos;
            set = set.remove(set.find(start, end)).add(doc, turnedIn(doc, start, end, book));
          }),
        );
        return set;
      },
    },
    props: { decorations: (state) => plugin.getState(state) },
  });
  return plugin;
}

const lists = new Set(["bullet_list", "ordered_list", "table"]);

function turnedIn(doc: Node, from: number, to: number, book: Direction): Decoration[] {
  const found: Decoration[] = [];
  doc.nodesBetween(from, to, (node, position, parent) => {
    if (!node.isTextblock && !lists.has(node.type.name)) return;
    // What it stands in may be turned round.
    const dir = turnedDirection(node, book) ?? (parent === doc ? null : book);
    if (dir) found.push(Decoration.node(position, position + node.nodeSize, { dir }));
  });
  return found;
}
