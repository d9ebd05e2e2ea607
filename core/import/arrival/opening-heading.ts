import type { DefaultTreeAdapterMap } from "parse5";

type Node = DefaultTreeAdapterMap["node"];
type Element = DefaultTreeAdapterMap["element"];

/** So many letters before its first heading are a text, and the page is called by its file's name. */
const textBefore = 300;
const ofBody =
  /^(html|body|div|section|article|main|header|hgroup|center|details|summary|form|fieldset|address|search|dialog)$/;
const ofEdges = /^(nav|aside|footer)$/;

/** What no reader of a page sees. */
export const silent = new Set(["script", "style", "template", "head", "title", "noscript", "iframe"]);

/** The heading that begins a page of a folder, and what stands before it on the page, which stands behind it in the book. */
export interface Opening {
  heading: Element;
  before: readonly Node[];
}

/**
 * How a page of a folder begins, as a reader of the whole page finds it: by the first of its highest headings.
 * @param siteName the words of a heading that stands on most pages, and begins none that has others
 */
export function openingOf(document: Node, siteName: string | null): Opening | null {
  const headings: { element: Element; isAtEdge: boolean }[] = [];
  const collect = (node: Node, isAtEdge: boolean): void => {
    for (const child of "childNodes" in node ? node.childNodes : []) {
      const isEdge = isAtEdge || ofEdges.test(child.nodeName);
      if ("tagName" in child && /^h[1-6]$/.test(child.tagName)) headings.push({ element: child, isAtEdge });
      else if (isEdge || ofBody.test(child.nodeName)) collect(child, isEdge);
    }
  };
  collect(document, false);
  const inText = headings.filter(({ isAtEdge }) => !isAtEdge);
  const all = inText.length > 0 ? inText : headings;
  const opens = all.length > 1 ? all.find(({ element }) => element.tagName === "h1") : undefined;
  const found = all.filter((one) => one !== opens || openingWords(one.element) !== siteName);
  const highest = Math.min(...found.map(({ element }) => Number(element.tagName[1])));
  const first = found.find(({ element }) => Number(element.tagName[1]) === highest);
  if (!first) return null;
  const before = nodesBefore(first.element);
  if (before.reduce((sum, node) => sum + lettersOf(node), 0) > textBefore) return null;
  return { heading: first.element, before: before.slice(0, before.findLastIndex(isShown) + 1) };
}

/** The words of a heading, with single blanks. */
export function openingWords(node: Node): string {
  return wordsOf(node).replace(/\s+/g, " ").trim();
}

export function wordsOf(node: Node): string {
  if (node.nodeName === "#text") return (node as DefaultTreeAdapterMap["textNode"]).value;
  return "childNodes" in node ? node.childNodes.map(wordsOf).join("") : "";
}

function nodesBefore(element: Element): Node[] {
  const found: Node[] = [];
  for (let node: Node = element; "parentNode" in node && node.parentNode; node = node.parentNode) {
    const siblings = node.parentNode.childNodes;
    found.unshift(...siblings.slice(0, siblings.indexOf(node)));
  }
  return found;
}

function lettersOf(node: Node): number {
  if (node.nodeName === "#text")
    return (node as DefaultTreeAdapterMap["textNode"]).value.replace(/\s+/g, "").length;
  const isLink = node.nodeName === "a" && "attrs" in node && node.attrs.some(({ name }) => name === "href");
  if (isLink || !("childNodes" in node) || silent.has(node.nodeName)) return 0;
  return node.childNodes.reduce((sum, child) => sum + lettersOf(child), 0);
}

function isShown(node: Node): boolean {
  if (node.nodeName === "#text") return (node as DefaultTreeAdapterMap["textNode"]).value.trim() !== "";
  if (node.nodeName === "img") return true;
  return "childNodes" in node && !silent.has(node.nodeName) && node.childNodes.some(isShown);
}
