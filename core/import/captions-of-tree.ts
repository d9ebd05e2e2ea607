import type { Element, ElementContent, Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "./hast-nodes.ts";

/** A paragraph that is a caption: a label, as “Figure”, a number that counts, and the words. */
interface Caption {
  paragraph: Element;
  of: "figure" | "table";
  number: number;
  /** Where the number stands among what is in the paragraph. */
  at: number;
}

const longestLabel = 20;

/**
 * Makes captions of paragraphs that begin with a label and a number that the document counts (an element with
 * `dataCounted`, the name of what it counts). Numbers are counted anew by the book: where they would not be the same,
 * all paragraphs of that sort stay what they are.
 */
export function captionsOfTree(tree: Root): void {
  const found = allElements(tree).flatMap((one) => captionOf(one) ?? []);
  for (const kind of ["figure", "table"] as const) {
    const captions = found.filter(({ of }) => of === kind);
    if (!captions.every(({ number }, i) => number === i + 1)) continue;
    for (const { paragraph, at } of captions) {
      paragraph.properties["dataCaption"] = kind;
      const label = paragraph.children.slice(0, at + 1);
      const isAnchor = (node: ElementContent): boolean =>
        node.type === "element" && node.tagName === "a" && node.properties["href"] === undefined;
      const rest = withoutSeparator(paragraph.children.slice(at + 1));
      paragraph.children = [...label.filter(isAnchor), ...rest];
    }
  }
}

function captionOf(paragraph: Element): Caption | null {
  if (paragraph.tagName !== "p") return null;
  const at = paragraph.children.findIndex(
    (node) => node.type === "element" && node.properties["dataCounted"] !== undefined,
  );
  const counted = paragraph.children[at];
  if (counted?.type !== "element") return null;
  const label = paragraph.children
    .slice(0, at)
    .map((node) => (node.type === "text" ? node.value : node.type === "element" ? toString(node) : ""))
    .join("");
  const words = toString(counted).trim();
  if (label.length > longestLabel || !/^\d+$/.test(words)) return null;
  const of = /^tab/i.test(String(counted.properties["dataCounted"])) ? "table" : "figure";
  return { paragraph, of, number: Number(words), at };
}

/** What follows a number, without the sign that parts them. */
function withoutSeparator(content: ElementContent[]): ElementContent[] {
  const at = content.findIndex((node) => node.type === "text");
  const text = content[at];
  if (text?.type !== "text") return content;
  const value = text.value.replace(/^\s*[.:–—-]?\s*/, "");
  return [...content.slice(0, at), { ...text, value }, ...content.slice(at + 1)];
}
