import type { Definition, FootnoteDefinition, Link, Node, Nodes, Parents, Root, RootContent } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { gfm } from "micromark-extension-gfm";
import { escapesAsMarks, hasMarks, withoutEscapes } from "./escapes.ts";
import { definitionsIn, labelsIn, readInStretches, stretchesOf } from "./stretches.ts";

/** Labels that no author gives: what bears them stands around a stretch, and is taken away again. */
const [before, behind] = ["vennet stretch begins", "vennet stretch ends"];

/**
 * The tree of a text in Markdown (CommonMark 0.31, GFM), the same as if it were parsed as a whole, but parsed stretch by
 * stretch, since parsers note each letter's state. A label that is defined elsewhere gets a definition in each stretch.
 * @param length how long a stretch is at least
 */
export function treeOfMarkdown(text: string, length?: number): Root {
  const stretches = stretchesOf(text, length);
  if (stretches.length === 1) return parsed(text);
  const labels = new Map(definitionsIn(text).map(({ name, label }) => [name, label]));
  const tree = parsedInStretches(stretches, labels);
  // What only looked like a definition, as in code, defines nothing.
  const defined = definedIn(tree);
  const missed = [...labels.keys()].filter((name) => !defined.has(name));
  if (missed.length === 0) return tree;
  for (const name of missed) labels.delete(name);
  return parsedInStretches(stretches, labels);
}

function parsed(text: string): Root {
  return withoutBareWww(parsedWithEscapes(text));
}

/** Parsers take “www.” at the end of a sentence for an address; one has a domain behind it (GFM 0.29, 6.9). */
function withoutBareWww(tree: Root): Root {
  const visit = (parent: Parents): void => {
    parent.children.forEach((child, i) => {
      if (isBareWww(child)) (parent.children as Node[])[i] = child.children[0]!;
      else if ("children" in child) visit(child);
    });
  };
  visit(tree);
  return tree;
}

function isBareWww(node: Nodes): node is Link {
  return node.type === "link" && /^http:\/\/www$/i.test(node.url);
}

function parsedWithEscapes(text: string): Root {
  const extensions = [gfm()];
  if (hasMarks(text)) return fromMarkdown(text, { extensions, mdastExtensions: [gfmFromMarkdown()] });
  return withoutEscapes(
    fromMarkdown(text, { extensions, mdastExtensions: [gfmFromMarkdown(), escapesAsMarks] }),
  );
}

function parsedInStretches(stretches: readonly string[], labels: ReadonlyMap<string, string>): Root {
  const children: RootContent[] = [];
  let [line, offset] = [0, 0];
  readInStretches(stretches, (stretch, isLast) => {
    const nodes = nodesOf(stretch, labels, isLast);
    if (nodes === null) return null;
    for (const node of nodes) move(node, line, offset);
    children.push(...nodes);
    line += stretch.split("\n").length - 1;
    offset += stretch.length;
    return true;
  });
  return { type: "root", children };
}

/** The nodes of a stretch; null where something is still open at its end. */
function nodesOf(
  stretch: string,
  labels: ReadonlyMap<string, string>,
  isLast: boolean,
): RootContent[] | null {
  const needed = [...labelsIn(stretch)].flatMap((name) => labels.get(name) ?? []);
  // Notes first: a definition ends them.
  const notes = needed.filter((label) => label.startsWith("^")).map((label) => `[${label}]: x\n\n`);
  const others = needed.filter((label) => !label.startsWith("^")).map((label) => `[${label}]: #\n\n`);
  const prefix = `${notes.join("")}${others.join("")}[${before}]: #\n\n`;
  const { children } = parsed(prefix + stretch + (isLast ? "" : `\n\n[${behind}]: #\n`));
  const own = children.slice(children.findIndex((node) => isNamed(node, before)) + 1);
  const end = own.at(-1);
  if (!isLast && !(end && isNamed(end, behind))) return null;
  if (!isLast) own.pop();
  for (const node of own) move(node, 1 - prefix.split("\n").length, -prefix.length);
  return own;
}

function isNamed(node: RootContent, label: string): boolean {
  return node.type === "definition" && node.identifier === label;
}

function move(node: Node, lines: number, units: number): void {
  if (node.position)
    for (const point of [node.position.start, node.position.end]) {
      point.line += lines;
      point.offset = point.offset! + units;
    }
  if ("children" in node) for (const child of (node as Parents).children) move(child, lines, units);
}

/** The labels that a tree defines, as they are compared; those of notes with their sign. */
function definedIn(tree: Root): Set<string> {
  const found = new Set<string>();
  const visit = (node: Node): void => {
    if (isDefinition(node)) found.add(node.type === "definition" ? node.identifier : `^${node.identifier}`);
    if ("children" in node) (node as Parents).children.forEach(visit);
  };
  visit(tree);
  return found;
}

function isDefinition(node: Node): node is Definition | FootnoteDefinition {
  return node.type === "definition" || node.type === "footnoteDefinition";
}
