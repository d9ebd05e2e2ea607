import GithubSlugger from "github-slugger";
import { parse, type DefaultTreeAdapterMap } from "parse5";
import { decoded } from "../hast-nodes.ts";
import { FileLinks, type FileLink } from "./file-links.ts";

type Node = DefaultTreeAdapterMap["node"];
type Element = DefaultTreeAdapterMap["element"];

const silent = new Set(["script", "style", "template", "head", "title", "noscript", "iframe"]);

/** What a link is skipped for, and by which names its places are known. */
interface HtmlLinksOptions {
  /** Signs and ways back of notes, which are no links of the author's. */
  isOfNote?: (attribute: (name: string) => string | undefined) => boolean;
  /** Whether headings are places under their words too, as in Markdown. */
  hasSlugs?: boolean;
}

/** The links of a page as parse5 reads it, in the order of its source. */
export function linksOfHtml(text: string, { isOfNote, hasSlugs }: HtmlLinksOptions = {}): FileLink[] {
  const links = new FileLinks();
  const slugger = new GithubSlugger();
  let base: string | null = null;
  const walk = (node: Node): void => {
    if (node.nodeName === "#text") return links.text((node as DefaultTreeAdapterMap["textNode"]).value);
    if (!("childNodes" in node)) return;
    if (!("tagName" in node)) return node.childNodes.forEach(walk);
    visit(node);
  };
  const visit = (element: Element): void => {
    const attribute = (name: string): string | undefined =>
      element.attrs.find((one) => one.name === name)?.value;
    const { tagName } = element;
    if (tagName === "base" && /^https?:/i.test(attribute("href") ?? "")) base ??= attribute("href")!;
    const isDrawn = element.namespaceURI.endsWith("/svg");
    if (silent.has(tagName) && tagName !== "head" && !isDrawn) return;
    links.where = element.sourceCodeLocation ? `line ${element.sourceCodeLocation.startLine}` : links.where;
    links.place(attribute("id"));
    if (tagName === "a") links.place(attribute("name"));
    if (hasSlugs && /^h[1-6]$/.test(tagName)) links.place(slugger.slug(wordsOf(element)));
    if (tagName === "image") links.picture(attribute("aria-label") ?? "");
    if (tagName === "img") links.picture(attribute("alt") ?? "");
    const href = attribute("href");
    const isLink = (tagName === "a" || tagName === "area") && href !== undefined;
    if (!isLink || (isOfNote?.(attribute) ?? false)) {
      // The number of a note is no word of the text.
      if (!isLink) element.childNodes.forEach(walk);
      return;
    }
    const isUnnamedArea = tagName === "area" && !attribute("alt");
    const title = isUnnamedArea ? null : (attribute("title") ?? null);
    links.begin(base === null ? href : startingFrom(base, href), title);
    if (tagName === "area") links.text(attribute("alt") || attribute("title") || href);
    element.childNodes.forEach(walk);
    links.end();
  };
  walk(parse(text, { sourceCodeLocationInfo: true, scriptingEnabled: false }));
  return links.all((fragment) => [fragment, decoded(fragment), decoded(fragment).toLowerCase()]);
}

function startingFrom(base: string, href: string): string {
  return href.startsWith("#") || !URL.canParse(href, base) ? href : new URL(href, base).href;
}

function wordsOf(node: Node): string {
  if (node.nodeName === "#text") return (node as DefaultTreeAdapterMap["textNode"]).value;
  return "childNodes" in node ? node.childNodes.map(wordsOf).join("") : "";
}
