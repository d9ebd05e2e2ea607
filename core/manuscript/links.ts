import type { Node } from "prosemirror-model";
import {
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  defaultLink,
  type LinkAttrs,
  type ReferenceForm,
} from "./attributes.ts";
import { linkOn } from "./schema.ts";

/** Neighbouring inline nodes of one block that belong to the same link, or to none. */
export interface InlineRun {
  link: LinkAttrs | null;
  nodes: Node[];
  /** Position of the run's first character, counted from the start of the block's content. */
  offset: number;
}

/** What a link covers in one paragraph. */
export interface LinkPart {
  text: string;
  /** Document positions of its first and behind its last character. */
  from: number;
  to: number;
}

/** One link of a chapter, with the words it covers and where they stand. */
export interface LinkUse extends LinkAttrs {
  /**
   * The link text: the words, and the text alternatives of pictures, in order; a hotspot's alternative;
   * what a cross-reference says of its target.
   */
  text: string;
  /** Document positions of its first and behind its last character; of the picture for a hotspot. */
  from: number;
  to: number;
  /** One for each paragraph that the link runs through. */
  parts: LinkPart[];
  /** Whether it covers words, a picture alone, or an area of one, or is a cross-reference. */
  on: "words" | "picture" | "hotspot" | "reference";
}

/** What a cross-reference of each form says, for lists of links: its words are known only with the book. */
export const formWords: Record<ReferenceForm, string> = {
  text: "(its text)",
  number: "(its number)",
  page: "(its page)",
  "page-and-text": "(its text and page)",
  "above-or-below": "(above or below)",
};

/**
 * Divides a block's inline content into links and what stands between them. Runs with the same link
 * id are one link, whatever other marks divide them.
 */
export function inlineRuns(block: Node): InlineRun[] {
  const runs: InlineRun[] = [];
  block.forEach((inline, offset) => {
    const link = linkOn(inline);
    const last = runs.at(-1);
    if (last && last.link?.id === link?.id) last.nodes.push(inline);
    else runs.push({ link, nodes: [inline], offset });
  });
  return runs;
}

/** The words of a run, and the text alternatives of its pictures. */
export function runText({ nodes }: Pick<InlineRun, "nodes">): string {
  return nodes.map(inlineText).join("");
}

const usesOf = new WeakMap<Node, LinkUse[]>();

/**
 * Every link of a chapter in the order of the document. A link that reaches the end of one paragraph and
 * goes on, under the same id, at the start of the next is one link. Reckoned once for each document,
 * which never changes.
 */
export function linkUses(doc: Node): readonly LinkUse[] {
  let uses = usesOf.get(doc);
  if (!uses) usesOf.set(doc, (uses = readUses(doc)));
  return uses;
}

function readUses(doc: Node): LinkUse[] {
  const uses: LinkUse[] = [];
  /** Where among them the link is that reaches the end of the paragraph before. */
  let continued = -1;
  doc.descendants((block, position) => {
    if (!block.isTextblock) return true;
    if (block.childCount === 0) return false;
    const start = position + 1;
    const end = start + block.content.size;
    const own = usesOfBlock(block, start);
    const before = continued === -1 ? undefined : uses[continued];
    const first = own[0];
    const goesOn =
      before !== undefined && first?.id === before.id && first.from === start && isStretch(first);
    if (goesOn) {
      const parts = [...before.parts, ...first.parts];
      uses[continued] = { ...before, text: `${before.text} ${first.text}`, to: first.to, parts };
    }
    if (!goesOn || first.to !== end) continued = -1;
    for (let i = goesOn ? 1 : 0; i < own.length; i++) {
      if (own[i]!.to === end && isStretch(own[i]!)) continued = uses.length;
      uses.push(own[i]!);
    }
    return false;
  });
  return uses;
}

/** Whether a link covers a stretch of the text, and may go on in the next paragraph. */
function isStretch({ on }: LinkUse): boolean {
  return on === "words" || on === "picture";
}

/** The links of each paragraph where it stood last: at a key one paragraph changes, and others at most move. */
const usesOfBlocks = new WeakMap<Node, { start: number; uses: readonly LinkUse[] }>();

function usesOfBlock(block: Node, start: number): readonly LinkUse[] {
  const known = usesOfBlocks.get(block);
  if (known?.start === start) return known.uses;
  const uses = known ? known.uses.map((use) => moved(use, start - known.start)) : readBlock(block, start);
  usesOfBlocks.set(block, { start, uses });
  return uses;
}

/** A link of a paragraph, which has one part, where its paragraph stands now. */
function moved(use: LinkUse, by: number): LinkUse {
  return linkUse(use, { text: use.text, from: use.from + by, to: use.to + by }, use.on);
}

function readBlock(block: Node, start: number): LinkUse[] {
  const uses: LinkUse[] = [];
  for (const run of inlineRuns(block)) {
    const from = start + run.offset;
    if (run.link) {
      const size = run.nodes.reduce((sum, node) => sum + node.nodeSize, 0);
      const alone = run.nodes.length === 1 && run.nodes[0]!.type.name === "picture";
      uses.push(
        linkUse(run.link, { text: runText(run), from, to: from + size }, alone ? "picture" : "words"),
      );
    }
    let at = from;
    for (const node of run.nodes) {
      if (node.type.name === "picture") uses.push(...hotspotUses(node, at));
      if (node.type.name === "cross_reference") uses.push(referenceUse(node, at));
      at += node.nodeSize;
    }
  }
  return uses;
}

function hotspotUses(picture: Node, from: number): LinkUse[] {
  return pictureAttrs(picture).hotspots.map(({ id, destination, description, alt }) =>
    linkUse({ ...defaultLink, id, destination, description }, { text: alt, from, to: from + 1 }, "hotspot"),
  );
}

function referenceUse(node: Node, from: number): LinkUse {
  const { id, target, form } = referenceAttrs(node);
  return linkUse(
    { ...defaultLink, id, destination: { kind: "place", target }, description: null },
    { text: formWords[form], from, to: from + 1 },
    "reference",
  );
}

/** A link of one part. Written out, since a book has very many, and spreading objects takes several times as long. */
function linkUse(link: LinkAttrs, part: LinkPart, on: LinkUse["on"]): LinkUse {
  return {
    id: link.id,
    destination: link.destination,
    description: link.description,
    asText: link.asText,
    look: link.look,
    newWindow: link.newWindow,
    text: part.text,
    from: part.from,
    to: part.to,
    parts: [part],
    on,
  };
}

/** The words of one inline node, as lists of links show them. */
export function inlineText(inline: Node): string {
  if (inline.isText) return inline.text!;
  if (inline.type.name === "picture") return pictureWords(pictureAttrs(inline));
  if (inline.type.name === "hard_break") return " ";
  if (inline.type.name === "formula") return inline.textContent;
  return "";
}
