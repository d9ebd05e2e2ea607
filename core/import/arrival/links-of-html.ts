import GithubSlugger from "github-slugger";
import { parse, type DefaultTreeAdapterMap } from "parse5";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { FileLinks, type FileLink } from "./file-links.ts";
import { fontOfElement, isSymbolFont, symbolsOf } from "../symbol-fonts.ts";
import { Rubies } from "./rubies.ts";
import { isListed, isSignOfItem, isSpaceBehindSign } from "../html/list-signs.ts";
import { commentsOfPage } from "./comments-of-page.ts";
import { openingOf, silent, wordsOf } from "./opening-heading.ts";

type Node = DefaultTreeAdapterMap["node"];
type Element = DefaultTreeAdapterMap["element"];

interface HtmlLinksOptions {
  /** Signs and ways back of notes, which are no links of the author's. */
  isOfNote?: (attribute: (name: string) => string | undefined) => boolean;
  /** Whether the page is an export of ours; left out where it says so itself. */
  isOurs?: boolean;
  /** Whether headings are places under their words too, as in Markdown. */
  hasSlugs?: boolean;
  /** Where a link of this page leads, seen from all pages together. */
  hrefOf?: (href: string) => string;
  /** The path of this page among several; left out where there is one. */
  path?: string;
  /** How a place of this page is called among those of all pages. */
  placeOf?: (name: string) => string;
  /** The path of a page that is a chapter: links to it lead to where that begins. */
  page?: string;
  /** What it calls itself, where no other page does so. */
  pageTitle?: string;
  /** The words of a heading that most pages have. */
  siteName?: string | null;
}

/** The links of a page as parse5 reads it, in the order of its source. */
export function linksOfHtml(text: string, options: HtmlLinksOptions = { isOfNote: isWayBack }): FileLink[] {
  const links = new FileLinks();
  readLinks(text, links, options);
  return links.all((fragment) => [
    fragment,
    percentDecoded(fragment),
    percentDecoded(fragment).toLowerCase(),
  ]);
}

/** Takes down the links of one page behind those of others. */
export function readLinks(
  text: string,
  links: FileLinks,
  {
    isOfNote,
    hasSlugs,
    path,
    page,
    pageTitle,
    siteName = null,
    isOurs = /<meta name="vennet-counts"/.test(text),
    hrefOf = (href) => href,
    placeOf = (name) => name,
  }: HtmlLinksOptions,
): void {
  const document = parse(text, { sourceCodeLocationInfo: true, scriptingEnabled: false });
  const opening = page === undefined || isOurs ? null : openingOf(document, siteName);
  const later = new Set(opening?.before);
  const slugger = new GithubSlugger();
  let base: string | null = null;
  let symbolFont: string | null = null;
  const rubies = new Rubies((words) => links.text(words));
  const nameOf = (name: string | undefined): string | undefined => name && placeOf(name);
  const place = (name: string | undefined): void => links.place(nameOf(name));
  const comments = isOurs ? null : commentsOfPage(document);
  const walk = (node: Node): void => {
    if (later.has(node)) return;
    if (node.nodeName === "#text") {
      const { value } = node as DefaultTreeAdapterMap["textNode"];
      return rubies.text(symbolFont === null ? value : symbolsOf(symbolFont, value));
    }
    if (!("childNodes" in node)) return;
    if (!("tagName" in node)) return node.childNodes.forEach(walk);
    const isComment = comments?.elements.has(node) ?? false;
    if (isComment) links.apart = "a comment";
    visit(node);
    if (isComment) links.apart = null;
    if (node !== opening?.heading) return;
    later.clear();
    opening.before.forEach(walk);
  };
  const visit = (element: Element): void => {
    const attribute = (name: string): string | undefined =>
      element.attrs.find((one) => one.name === name)?.value;
    const { tagName } = element;
    if (tagName === "base" && /^https?:/i.test(attribute("href") ?? "")) base ??= attribute("href")!;
    const isDrawn = element.namespaceURI.endsWith("/svg");
    // What a book of ours made by itself is made again.
    if (isOurs && attribute("data-made") !== undefined) return placesIn(element);
    if (silent.has(tagName) && tagName !== "head" && !isDrawn) return;
    const line = element.sourceCodeLocation && `line ${element.sourceCodeLocation.startLine}`;
    if (line) links.where = path === undefined ? line : `${path}, ${line}`;
    const isHeading = /^h[1-6]$/.test(tagName);
    if (isHeading) links.beginHeading();
    if (element === opening?.heading) links.place(page);
    if (tagName === "pre") links.beginListing();
    place(attribute("id"));
    if (tagName === "a") links.oldName(nameOf(attribute("name")));
    if (hasSlugs && isHeading) place(slugger.slug(wordsOf(element)));
    if (tagName === "image") links.picture(attribute("aria-label") ?? "");
    if (tagName === "img") links.picture(attribute("alt") ?? "");
    const href = attribute("href");
    const isLink = (tagName === "a" || tagName === "area") && href !== undefined;
    // The words of some headings lead back to their entry in contents.
    const isInHeading = links.isInHeading && isWayBack(attribute);
    if (!isLink || (!isInHeading && (isOfNote?.(attribute) ?? false))) {
      rubies.begin(tagName);
      const font = fontOfElement(tagName, attribute("style"), attribute("face"));
      const around = symbolFont;
      if (font !== null) symbolFont = isSymbolFont(font) ? font : null;
      const sign = isOurs ? new Set<Node>() : signOfItem(element);
      // The number of a note is no word of the text, and neither is the sign of an item.
      if (!isLink) element.childNodes.filter((child) => !sign.has(child)).forEach(walk);
      symbolFont = around;
      rubies.end(tagName);
      if (isHeading) links.endHeading();
      if (tagName === "pre") links.endListing();
      return;
    }
    const isUnnamedArea = tagName === "area" && !attribute("alt");
    const title = isUnnamedArea ? null : (attribute("title") ?? null);
    // The sign of a comment goes with it.
    if (href.startsWith("#") && comments?.names.has(href.slice(1))) return;
    links.begin(hrefOf(base === null ? href : startingFrom(base, href)), title);
    if (tagName === "area") links.text(attribute("alt") || attribute("title") || href);
    element.childNodes.forEach(walk);
    links.end();
  };
  const placesIn = (element: Element): void => {
    place(element.attrs.find(({ name }) => name === "id")?.value);
    for (const child of element.childNodes) if ("tagName" in child) placesIn(child);
  };
  if (page !== undefined && opening === null) {
    links.place(page);
    for (const outer of outermost(document)) place(outer.attrs.find(({ name }) => name === "id")?.value);
    // A page that no heading begins is called as it calls itself, or by its file’s name.
    if (!isOurs) links.text(pageTitle ?? page.replace(/^.*\//s, "").replace(/\.[^.]+$/, ""));
  }
  walk(document);
}

/** The elements that a page is in, which are its top. */
function outermost(document: Node): Element[] {
  const children = "childNodes" in document ? document.childNodes : [];
  return children.flatMap((child): Element[] =>
    "tagName" in child && /^(html|body)$/.test(child.tagName) ? [child, ...outermost(child)] : [],
  );
}

/** What stands in a paragraph that is an item of a list as its sign; nothing in others. */
function signOfItem(element: Element): Set<Node> {
  const said = (name: string): string => element.attrs.find((one) => one.name === name)?.value ?? "";
  if (element.tagName !== "p" || !isListed(said("class"), said("style"))) return new Set();
  const endsInSpace = (node: Node): boolean => {
    const last = "childNodes" in node ? node.childNodes.at(-1) : undefined;
    return isSpaceBehindSign(wordsOf(node)) || (last !== undefined && endsInSpace(last));
  };
  const until = element.childNodes.findIndex(endsInSpace);
  const sign = element.childNodes.slice(0, until + 1);
  return new Set(isSignOfItem(sign.map(wordsOf).join("")) ? sign : []);
}

/** Whether a link says that it is the way back from a note (DPUB-ARIA 1.1). */
export function isWayBack(attribute: (name: string) => string | undefined): boolean {
  return /\bdoc-backlink\b/.test(attribute("role") ?? "");
}

function startingFrom(base: string, href: string): string {
  return href.startsWith("#") || !URL.canParse(href, base) ? href : new URL(href, base).href;
}
