import { Fragment, type Mark, type Node } from "prosemirror-model";
import { literalPattern } from "../manuscript/literal-pattern.ts";
import type { CrossReference, ReferenceForm } from "../manuscript/attributes.ts";
import type { BookIndex, IndexedPlace } from "../manuscript/book-index.ts";
import { inlineRuns, linkUses } from "../manuscript/links.ts";
import { referenceWords } from "../manuscript/references.ts";
import { linkOn, schema } from "../manuscript/schema.ts";
import type { Follows } from "./hast-to-manuscript/carried.ts";

/** Words for a page that stand before its number (common practice), besides the book's own. */
const pageWords = [
  "page",
  "p.",
  "pg.",
  "Seite",
  "S.",
  "página",
  "pág.",
  "pagina",
  "blz.",
  "pag.",
  "sida",
  "side",
  "strona",
];

/**
 * Makes cross-references of the links that follow their targets, where they say in the book what they say in the file;
 * any other keeps the words that it had, and is a link where it was one.
 * @param follows how links follow their targets, by the links' ids
 */
export function followTargets(
  chapters: readonly Node[],
  follows: ReadonlyMap<string, Follows>,
  index: BookIndex,
): Node[] {
  if (follows.size === 0) return [...chapters];
  return chapters.map((doc, at) => {
    const positions = new Map(linkUses(doc).map(({ id, from }) => [id, from]));
    const visit = (node: Node): Node => {
      if (node.isTextblock) return node.copy(Fragment.from(followed(node, at, positions)));
      return node.isLeaf ? node : node.copy(Fragment.from(node.children.map(visit)));
    };
    const followed = (block: Node, chapter: number, places: ReadonlyMap<string, number>): Node[] => {
      const out: Node[] = [];
      for (const { nodes, link } of inlineRuns(block)) {
        const way = link ? follows.get(link.id) : undefined;
        const words = nodes.map((node) => node.text ?? "\ufffc").join("");
        const made =
          way &&
          reference(
            nodes[0]!,
            words,
            way,
            index,
            { chapter, position: places.get(link!.id) ?? 0 },
            out.at(-1),
          );
        if (!made) {
          out.push(...(way?.isJump === false ? nodes.map(withoutLink) : nodes));
          continue;
        }
        if (made.before) out.pop();
        if (made.before?.text) out.push(made.before.node(made.before.text));
        out.push(made.node);
      }
      return out;
    };
    return visit(doc);
  });
}

interface MadeReference {
  node: Node;
  /** What is left of the words before it, where a word for the page belonged to it. */
  before: { text: string; node: (text: string) => Node } | null;
}

function reference(
  first: Node,
  words: string,
  { form, fallback }: Follows,
  index: BookIndex,
  from: { chapter: number; position: number },
  ahead: Node | undefined,
): MadeReference | null {
  const link = linkOn(first)!;
  if (link.destination.kind !== "place" || words.includes("\ufffc")) return null;
  const { target } = link.destination;
  const attrs = (own: ReferenceForm): CrossReference => ({ id: link.id, target, form: own, fallback });
  const marks = first.marks.filter(({ type }) => type !== schema.marks.link);
  const made = (own: ReferenceForm): MadeReference => ({ node: nodeOf(attrs(own), marks), before: null });
  const says = (own: ReferenceForm): string | null => {
    const said = referenceWords(attrs(own), index, from, false);
    return said.kind === "words" ? folded(said.words) : null;
  };
  if (form === "as-it-says") {
    const own = (["text", "number", "above-or-below"] as const).find((one) => says(one) === folded(words));
    return own ? made(own) : tellsNumber(words, index.places.get(target)) ? made("number") : null;
  }
  if (form !== "page" || !/^\s*[\divxlc]+\s*$/i.test(words)) return says(form) === null ? null : made(form);
  // A bare number stands behind the word for it, which a reference brings along.
  const place = index.places.get(target);
  if (!place || place.words === "" || !ahead?.isText || linkOn(ahead)) return null;
  const word = [index.words.page, ...pageWords].find((one) =>
    new RegExp(`(^|[\\s(\u00a0])${literalPattern(one)}[\\s\u00a0]*$`).test(ahead.text!),
  );
  if (word === undefined) return null;
  const text = ahead.text!.slice(0, ahead.text!.lastIndexOf(word));
  return { ...made("page"), before: { text, node: (left) => schema.text(left, ahead.marks) } };
}

/** Whether words are a caption's label in another word than the book's, as “Fig. 3”. */
function tellsNumber(words: string, place: IndexedPlace | undefined): boolean {
  if (place?.kind !== "figure" && place?.kind !== "table") return false;
  return /^\D{1,20}?\s?([\d.]+)$/.exec(words.trim())?.[1] === place.number;
}

function withoutLink(node: Node): Node {
  return node.mark(node.marks.filter(({ type }) => type !== schema.marks.link));
}

function nodeOf(attrs: CrossReference, marks: readonly Mark[]): Node {
  return schema.node("cross_reference", attrs, undefined, marks);
}

function folded(words: string): string {
  return words
    .replace(/[\s\u00a0]+/g, " ")
    .trim()
    .toLowerCase();
}
