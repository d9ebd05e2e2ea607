import type { Element, ElementContent, Root, RootContent } from "hast";
import { allElements } from "../hast-nodes.ts";

/** What stands before a meaning (common practice: Markdown itself has no lists of terms). */
const sign = /^:[ \t]+/;

/**
 * Makes lists of terms of what is written as such: a term on a line of its own, and what it means on lines below that begin
 * with a colon, in the same paragraph or in one of their own.
 */
export function definitionsOfLines(tree: Root): void {
  for (const parent of [tree, ...allElements(tree)]) {
    if (parent.children.some(isMeant)) parent.children = joined(parent.children as ElementContent[]);
  }
}

/** Whether a paragraph has a line that begins with the sign of a meaning. */
function isMeant(node: RootContent | ElementContent): boolean {
  return isParagraph(node) && linesOf(node).some(begins);
}

function isParagraph(node: RootContent | ElementContent | undefined): node is Element {
  return node?.type === "element" && node.tagName === "p";
}

function joined(children: readonly ElementContent[]): ElementContent[] {
  const out: ElementContent[] = [];
  for (const child of children) {
    const last = out.findLast((one) => one.type !== "text" || one.value.trim() !== "");
    const lines = isParagraph(child) ? linesOf(child) : [];
    const list = last?.type === "element" && last.tagName === "dl" ? last : null;
    if (lines.length === 0 || !lines.some(begins)) {
      out.push(child);
    } else if (begins(lines[0]!)) {
      // On its own, a colon is a colon: there has to be a term.
      const term = isParagraph(last) && linesOf(last).length === 1 ? last : null;
      if (list) list.children.push(...partsOf(child as Element, lines));
      else if (term) {
        out.splice(out.indexOf(term));
        const parts = [made(term, "dt", term.children), ...partsOf(child as Element, lines)];
        out.push(made(term, "dl", parts));
      } else out.push(child);
    } else {
      const parts = partsOf(child as Element, lines);
      if (list) list.children.push(...parts);
      else out.push(made(child as Element, "dl", parts));
    }
  }
  return out;
}

/** The lines of a paragraph, where those are its own and in nothing else. */
function linesOf({ children }: Element): ElementContent[][] {
  const lines: ElementContent[][] = [[]];
  for (const child of children) {
    if (child.type !== "text") {
      lines.at(-1)!.push(child);
      continue;
    }
    child.value.split("\n").forEach((value, i) => {
      if (i > 0) lines.push([]);
      if (value !== "") lines.at(-1)!.push({ ...child, value });
    });
  }
  return lines;
}

function begins([first]: ElementContent[]): boolean {
  return first?.type === "text" && sign.test(first.value);
}

/** Terms and meanings of lines; a line without a sign goes on with the meaning before it. */
function partsOf(paragraph: Element, lines: readonly ElementContent[][]): Element[] {
  const parts: Element[] = [];
  for (const line of lines) {
    const last = parts.at(-1);
    if (begins(line)) parts.push(made(paragraph, "dd", withoutSign(line)));
    else if (last?.tagName === "dd") last.children.push({ type: "text", value: "\n" }, ...line);
    else parts.push(made(paragraph, "dt", line));
  }
  return parts;
}

function withoutSign(line: readonly ElementContent[]): ElementContent[] {
  return line.map((node, i) =>
    i === 0 && node.type === "text" ? { ...node, value: node.value.replace(sign, "") } : node,
  );
}

function made({ position }: Element, tagName: string, children: ElementContent[]): Element {
  return { type: "element", tagName, properties: {}, children, ...(position ? { position } : {}) };
}
