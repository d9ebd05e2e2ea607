import type { Node } from "prosemirror-model";
import { orderNotes } from "../manuscript/notes.ts";

/**
 * Documents as lines to compare: every node with all its attributes and marks, in which ids are numbers in the order in
 * which they first stand somewhere, and files are called by name.
 * @param fileNames the names of pictures and companion files, by their ids
 */
export function spelledOut(docs: readonly Node[], fileNames: ReadonlyMap<string, string>): string[] {
  const numbers = new Map<string, string>([["book-top", "top"]]);
  const idKeys = new Set(["id", "target", "note", "section"]);
  const known = (id: string): string => {
    if (!numbers.has(id)) numbers.set(id, `#${numbers.size}`);
    return numbers.get(id)!;
  };
  const value = (of: unknown, key = ""): unknown => {
    if (Array.isArray(of)) return of.map((one) => value(one, key === "anchors" ? "id" : ""));
    if (of !== null && typeof of === "object")
      return Object.fromEntries(
        Object.entries(of)
          .filter(([name]) => name !== "source")
          .sort(([a], [b]) => (a < b ? -1 : 1))
          .map(([name, one]) => [name, value(one, name)]),
      );
    if (typeof of !== "string") return of;
    if (key === "file") return fileNames.get(of) ?? of;
    return idKeys.has(key) ? known(of) : of;
  };
  const lines: string[] = [];
  const visit = (node: Node, depth: number): void => {
    const marks = node.marks.map(({ type, attrs }) => `${type.name} ${JSON.stringify(value(attrs))}`);
    const shown = [
      node.isText ? JSON.stringify(node.text) : node.type.name,
      ...(Object.keys(node.attrs).length > 0 ? [JSON.stringify(value(node.attrs))] : []),
      ...marks,
    ];
    lines.push(`${" ".repeat(depth)}${shown.join(" · ")}`);
    const order = node.type.name === "doc" ? orderNotes(node) : [];
    const at = (child: Node): number => order.indexOf(child.attrs["id"] as string);
    // Notes stand behind the text in any order: they are numbered by their signs.
    for (const child of [...node.children].sort((a, b) => at(a) - at(b))) visit(child, depth + 1);
  };
  for (const doc of docs) visit(doc, 0);
  return lines;
}
