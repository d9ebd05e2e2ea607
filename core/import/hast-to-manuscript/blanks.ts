import type { Mark, Node } from "prosemirror-model";
import { schema } from "../../manuscript/schema.ts";

/** Words without the blanks at their ends and after their line breaks. */
export function trimBlanks(nodes: Node[]): Node[] {
  const out = nodes.flatMap((node, i) => {
    if (!node.isText || nodes[i - 1]?.type.name !== "hard_break") return [node];
    const text = node.text!.replace(/^ +/, "");
    return text === "" ? [] : [schema.text(text, node.marks)];
  });
  const edge = (index: number, pattern: RegExp): void => {
    const node = out.at(index);
    if (!node?.isText) return;
    const text = node.text!.replace(pattern, "");
    if (text === "") {
      out.splice(index, 1);
      edge(index, pattern);
    } else if (text !== node.text)
      out.splice(index === -1 ? out.length - 1 : index, 1, schema.text(text, node.marks));
  };
  edge(0, /^ +/);
  edge(-1, / +$/);
  return out;
}

/** The words of a link, of which blanks at their ends are no part (common practice); as they are where there is nothing else. */
export function linkedWithoutEdges(nodes: readonly Node[], link: Mark): Node[] {
  const isBlank = ({ isText, text }: Node): boolean => isText && text!.trim() === "";
  const first = nodes.findIndex((node) => !isBlank(node));
  const last = nodes.findLastIndex((node) => !isBlank(node));
  if (first === -1) return [...nodes];
  return nodes.flatMap((node, i) => {
    if (i < first || i > last) return [node.mark(link.removeFromSet(node.marks))];
    const text = node.text ?? "";
    const from = i === first ? text.length - text.trimStart().length : 0;
    const to = i === last ? text.trimEnd().length : text.length;
    if (!node.isText || (from === 0 && to === text.length)) return [node];
    const bare = link.removeFromSet(node.marks);
    return [
      ...(from > 0 ? [schema.text(text.slice(0, from), bare)] : []),
      schema.text(text.slice(from, to), node.marks),
      ...(to < text.length ? [schema.text(text.slice(to), bare)] : []),
    ];
  });
}

/** Code without the line break at its end. */
export function withoutLastNewline(nodes: Node[]): Node[] {
  const last = nodes.at(-1);
  if (!last?.text?.endsWith("\n")) return nodes;
  const text = last.text.slice(0, -1);
  return [...nodes.slice(0, -1), ...(text === "" ? [] : [schema.text(text, last.marks)])];
}

/** Words on one line, shortened to what a list can show. */
export function clip(text: string): string {
  const folded = text.replace(/\s+/g, " ").trim();
  return folded.length > 60 ? folded.slice(0, 59) + "…" : folded;
}
