import type { Definition, FootnoteDefinition, Node, Parents, Root, RootContent } from "mdast";
import { definitionsIn, labelsIn, readInStretches, stretchesOf } from "./stretches.ts";

/** Labels that no author gives: what bears them stands around a stretch, and is taken away again. */
const [before, behind] = ["vennet stretch begins", "vennet stretch ends"];

/**
 * The tree of a text in Markdown (CommonMark 0.31, GFM), the same as if it were parsed as a whole, but parsed stretch by
 * stretch: parsers note each letter's state, and go through all that they have noted where a list ends. A label that is
 * defined elsewhere gets a definition in each stretch.
 * @param parse parses a text that stands by itself
 * @param length how long a stretch is at least
 */
export function treeInStretches(text: string, parse: (text: string) => Root, length?: number): Root {
  const stretches = stretchesOf(text, length);
  if (stretches.length === 1) return parse(text);
  const labels = new Map(definitionsIn(text).map(({ name, label }) => [name, label]));
  const tree = parsedInStretches(stretches, labels, parse);
  // What only looked like a definition, as in code, defines nothing.
  const defined = definedIn(tree);
  const missed = [...labels.keys()].filter((name) => !defined.has(name));
  if (missed.length === 0) return tree;
  for (const name of missed) labels.delete(name);
  return parsedInStretches(stretches, labels, parse);
}

function parsedInStretches(
  stretches: readonly string[],
  labels: ReadonlyMap<string, string>,
  parse: (text: string) => Root,
): Root {
  const children: RootContent[] = [];
  let [line, offset] = [0, 0];
  readInStretches(stretches, (stretch, isLast) => {
    const nodes = nodesOf(stretch, labels, parse, isLast);
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
  parse: (text: string) => Root,
  isLast: boolean,
): RootContent[] | null {
  const needed = [...labelsIn(stretch)].flatMap((name) => labels.get(name) ?? []);
  // Notes first: a definition ends them.
  const notes = needed.filter((label) => label.startsWith("^")).map((label) => `[${label}]: x\n\n`);
  const others = needed.filter((label) => !label.startsWith("^")).map((label) => `[${label}]: #\n\n`);
  const prefix = `${notes.join("")}${others.join("")}[${before}]: #\n\n`;
  const { children } = parse(prefix + stretch + (isLast ? "" : `\n\n[${behind}]: #\n`));
  const own = children.slice(children.findIndex((node) => isNamed(node, before)) + 1);
  const end = own.at(-1);
  if (!isLast && !(end && isNamed(end, behind))) return null;
  if (!isLast) own.pop();
  const lines = prefix.split("\n").length - 1;
  for (const node of own) move(node, -lines, -prefix.length);
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
