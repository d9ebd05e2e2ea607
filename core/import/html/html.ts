import type { Element, ElementContent, Root } from "hast";
import { raw } from "hast-util-raw";
import { toString } from "hast-util-to-string";
import { VFile } from "vfile";
import { isWayBack, linksOfHtml } from "../arrival/links-of-html.ts";
import { linksWithinItself, withinItself } from "../own-name.ts";
import { areasOfMaps } from "../areas-of-maps.ts";
import { conventionsOf, withoutOthersNames } from "../hast-to-manuscript/carried.ts";
import { pictureOfSvg } from "../svg-pictures.ts";
import { decorativeByEmptyAlternative } from "../empty-alternatives.ts";
import { allElements } from "../hast-nodes.ts";
import { withoutComments } from "./comments.ts";
import { withoutIconWords } from "./icon-links.ts";
import { listsByIndent } from "./lists-by-indent.ts";
import { listedParagraphs } from "./listed-paragraphs.ts";
import { anchorsOfTop, namesOfTop } from "./names-of-top.ts";
import { breaksAsShown } from "./line-breaks.ts";
import { textOfPage } from "./page-text.ts";
import { picturesInside } from "./pictures-inside.ts";
import { notesOfTree } from "../notes-of-tree.ts";
import { stylesInside, type StyleSheets } from "../style-sheets.ts";
import { decodePage } from "../text-encoding.ts";
import type { AboutManuscript, ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";

/** A page of HTML or XHTML. */
export const html: ManuscriptReader = {
  accepts: ({ name, bytes }) => isPage(name, decodePage(bytes.subarray(0, 20_000))),
  read: (file) => readPage(textOfPage(file), stylesInside, file.name),
  linksOf: (file) => linksOfHtml(textOfPage(file), { isOfNote: isWayBack, hrefOf: withinItself(file.name) }),
};

/** A page says that it is one, or begins with an element and has nothing of Markdown in it. */
function isPage(name: string, start: string): boolean {
  const beginning = start.replace(/^\ufeff?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)*/, "");
  if (/^(<!doctype html|<html[\s>])/i.test(beginning)) return true;
  if (/\.(md|markdown)$/i.test(name)) return false;
  const element =
    /^<(head|body|title|meta|link|main|article|section|header|nav|div|p|h[1-6]|ul|ol|dl|table|a)\b/i;
  return element.test(beginning) && !/^#{1,6} |^```|\]\(/m.test(start);
}

/**
 * Reads a page, a whole text.
 * @param stylesOf what style sheets say of it
 * @param ownName the name of its file, by which its links may call it; null where all pages are seen together
 */
export function readPage(
  text: string,
  stylesOf: (page: Root) => StyleSheets,
  ownName: string | null = null,
): ReadManuscript {
  const page = parsed(text);
  const about = aboutPage(page, text);
  asOthersMeanIt(page, about.conventions !== null, stylesOf);
  const leftOut = about.conventions === null ? withoutComments(page) : [];
  const pictures = picturesInside(page);
  const tree = contentOf(page, ownName);
  notesOfTree(tree);
  return {
    tree,
    about,
    pictures,
    companions: [],
    leftOut,
    whereOf: ({ position }) => (position ? `line ${position.start.line}` : null),
  };
}

const isTitle = (className: unknown): boolean => /^(mso)?title$/i.test(String(className));

/** What a page says of itself. */
function aboutPage(page: Root, text: string): AboutManuscript {
  const all = allElements(page);
  const said = (value: unknown): string | null => (typeof value === "string" && value.trim()) || null;
  const title =
    all.find(({ tagName }) => tagName === "title") ??
    // Text programs save the title of a text as a paragraph of that style (common practice).
    all.find(({ tagName, properties: { className } }) => tagName === "p" && [className].flat().some(isTitle));
  const isAuthor = ({ tagName, properties }: Element): boolean =>
    tagName === "meta" && String(properties["name"]).toLowerCase() === "author";
  return {
    title: said(title && toString(title).replace(/\s+/g, " ")),
    author: said(all.find(isAuthor)?.properties["content"]),
    conventions: conventionsOf(
      all.find(({ properties }) => properties["name"] === "vennet-counts")?.properties["content"],
    ),
    // The tree begins with what is in the page’s outermost element.
    language: said(
      (/<html\b[^>]*?\slang\s*=\s*["']?([\w-]+)/i.exec(text) ??
        /<body\b[^>]*?\slang\s*=\s*["']?([\w-]+)/i.exec(text))?.[1],
    ),
  };
}

/**
 * The tree of a page as browsers read it, without what it says of itself.
 * @param isOurs whether it is an export of ours
 * @param stylesOf what style sheets say of it
 */
export function readHtml(
  text: string,
  isOurs: boolean,
  stylesOf: (page: Root) => StyleSheets = stylesInside,
): Root {
  const page = parsed(text);
  asOthersMeanIt(page, isOurs, stylesOf);
  return contentOf(page);
}

/** Reads what a page of others says as they mean it; one of ours is taken at its word. */
function asOthersMeanIt(page: Root, isOurs: boolean, stylesOf: (page: Root) => StyleSheets): void {
  withoutOthersNames(page, isOurs);
  if (isOurs) return;
  stylesOf(page).applyTo(page);
  listsByIndent(page);
  decorativeByEmptyAlternative(page);
  withoutIconWords(page);
  listedParagraphs(page);
  breaksAsShown(page);
}

function parsed(text: string): Root {
  const page = raw(
    {
      type: "root",
      children: [{ type: "raw", value: text, position: wholeOf(text) }],
    } as unknown as Root,
    { file: new VFile(text) },
  ) as Root;
  page.children.unshift(...anchorsOfTop(namesOfTop(text)));
  return page;
}

function contentOf(page: Root, ownName: string | null = null): Root {
  const base = allElements(page).find(({ tagName }) => tagName === "base")?.properties["href"];
  if (typeof base === "string" && /^https?:/i.test(base)) startFrom(page, base);
  if (ownName !== null) linksWithinItself(page, ownName);
  areasOfMaps(page);
  drawingsAsPictures(page);
  withoutHead(page);
  return page;
}

function wholeOf(text: string): unknown {
  const lines = text.split("\n");
  return {
    start: { line: 1, column: 1, offset: 0 },
    end: { line: lines.length, column: lines.at(-1)!.length + 1, offset: text.length },
  };
}

/** What a page says of itself is not for its readers, and nothing that is left out. */
const head = new Set(["title", "meta", "link", "base", "style"]);

function withoutHead(parent: Root | Element): void {
  parent.children = (parent.children as ElementContent[]).filter((child) => {
    if (child.type !== "element") return true;
    withoutHead(child);
    return !head.has(child.tagName);
  });
}

/** Relative links start where the page says that they do (HTML, 4.2.3). */
function startFrom(tree: Root, base: string): void {
  for (const element of allElements(tree)) {
    for (const key of ["href", "xLinkHref"]) {
      const href = element.properties[key];
      if (typeof href !== "string" || href.startsWith("#") || /^[a-z][a-z0-9+.-]*:/i.test(href)) continue;
      // What is no address is told as what it is when it is read.
      if (URL.canParse(href, base)) element.properties[key] = new URL(href, base).href;
    }
  }
}

/** Pictures in SVG as pictures, with the areas in it that are links. */
function drawingsAsPictures(parent: Root | Element): void {
  parent.children = (parent.children as ElementContent[]).flatMap((child): ElementContent[] => {
    if (child.type !== "element") return [child];
    if (child.tagName !== "svg") {
      drawingsAsPictures(child);
      return [child];
    }
    const made = pictureOfSvg(child);
    return made.length > 0 ? made : [child];
  });
}
