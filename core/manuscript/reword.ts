import { diffWordsWithSpace } from "diff";
import { Fragment, type Node } from "prosemirror-model";
import type { Transform } from "prosemirror-transform";
import { inlineText } from "./links.ts";
import { linkOn, schema } from "./schema.ts";

/**
 * Inline content with other words. Words that stay keep their marks, new ones get those of what they replace or follow;
 * pictures, formulas, signs of notes and anchors stay where they are.
 * @param words what it says then, in which such content is told by the words that lists show of it
 */
export function reworded(nodes: readonly Node[], words: string): Node[] {
  const cells = nodes.flatMap(cellsOf);
  const out: Node[] = [];
  let offset = 0;
  let i = 0;
  for (const edit of wordEdits(cells.map(({ text }) => text).join(""), words)) {
    while (i < cells.length && offset + cells[i]!.text.length <= edit.at) {
      out.push(cells[i]!.node);
      offset += cells[i++]!.text.length;
    }
    const like = edit.length > 0 || i === 0 ? cells[i] : cells[i - 1];
    if (edit.words !== "") out.push(schema.text(edit.words, (like ?? cells.at(-1)!).node.marks));
    for (; i < cells.length && offset < edit.at + edit.length; i++) {
      if (!isWords(cells[i]!.node)) out.push(cells[i]!.node);
      offset += cells[i]!.text.length;
    }
  }
  out.push(...cells.slice(i).map(({ node }) => node));
  // Text side by side that has the same marks is one node.
  return [...Fragment.fromArray(out).content];
}

/** A letter with its marks, or something that is no words, with what lists show of it. */
function cellsOf(node: Node): { node: Node; text: string }[] {
  if (!node.isText) return [{ node, text: inlineText(node) }];
  return Array.from({ length: node.nodeSize }, (_, at) => ({
    node: node.cut(at, at + 1),
    text: node.text![at]!,
  }));
}

/** Content of which only what is no words stays. */
export function withoutWords(nodes: readonly Node[]): Node[] {
  return nodes.filter((node) => !isWords(node));
}

/** What becomes of blanks at an end of what a link covers. */
export type BlanksThen = "linked" | "unlinked" | "gone";

/** What a link covers in one paragraph, with other blanks at its ends. */
export function withOuterBlanks(
  nodes: readonly Node[],
  { start, end }: { start: BlanksThen; end: BlanksThen },
): Node[] {
  const out = [...nodes];
  const [first] = out;
  const leading = first?.isText ? /^\s*/.exec(first.text!)![0].length : 0;
  if (start !== "linked" && leading > 0 && leading < first!.nodeSize)
    out.splice(0, 1, ...(start === "gone" ? [] : [unlinked(first!.cut(0, leading))]), first!.cut(leading));
  const last = out.at(-1);
  const trailing = last?.isText ? /\s*$/.exec(last.text!)![0].length : 0;
  const words = (last?.nodeSize ?? 0) - trailing;
  if (end !== "linked" && trailing > 0 && words > 0)
    out.splice(-1, 1, last!.cut(0, words), ...(end === "gone" ? [] : [unlinked(last!.cut(words))]));
  return out;
}

/** Puts other inline content in the place of a stretch, as far as it differs. */
export function replaceInline(change: Transform, from: number, to: number, next: readonly Node[]): void {
  const then = Fragment.fromArray([...next]);
  const now = inlineBetween(change.doc, from, to);
  const start = now.findDiffStart(then);
  if (start === null) return;
  let { a, b } = now.findDiffEnd(then)!;
  const overlap = start - Math.min(a, b);
  if (overlap > 0) {
    a += overlap;
    b += overlap;
  }
  change.replaceWith(from + start, from + a, then.cut(start, b));
}

/** The inline content of a stretch within one block. */
export function inlineBetween(doc: Node, from: number, to: number): Fragment {
  const $from = doc.resolve(from);
  return $from.parent.content.cut($from.parentOffset, $from.parentOffset + to - from);
}

function wordEdits(before: string, words: string): { at: number; length: number; words: string }[] {
  const edits: { at: number; length: number; words: string }[] = [];
  let at = 0;
  for (const { added, removed, value } of diffWordsWithSpace(before, words)) {
    if (!added && !removed) {
      at += value.length;
      continue;
    }
    let edit = edits.at(-1);
    if (!edit || edit.at + edit.length !== at) edits.push((edit = { at, length: 0, words: "" }));
    if (added) edit.words += value;
    else {
      edit.length += value.length;
      at += value.length;
    }
  }
  return edits;
}

function isWords(node: Node): boolean {
  return node.isText || node.type.name === "hard_break";
}

function unlinked(node: Node): Node {
  const link = linkOn(node);
  return link ? node.mark(schema.marks.link!.removeFromSet(node.marks)) : node;
}
