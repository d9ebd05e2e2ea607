import type { Node } from "prosemirror-model";
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
    if (text === "") out.splice(index, 1);
    else if (text !== node.text)
      out.splice(index === -1 ? out.length - 1 : index, 1, schema.text(text, node.marks));
  };
  edge(0, /^ +/);
  edge(-1, / +$/);
  return out;
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
