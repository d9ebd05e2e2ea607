import type { Html, PhrasingContent, RootContent } from "mdast";
import type { PictureAttrs } from "../../../manuscript/attributes.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";

// What Markdown has no signs for, in HTML, which it may hold anywhere.

export type Wrap = (inner: PhrasingContent[]) => PhrasingContent[];

/** What Markdown has no signs for is written in HTML. */
export const inElement =
  (tag: string): Wrap =>
  (inner) => [html(`<${tag}>`), ...inner, html(`</${tag.split(" ")[0]!}>`)];

/** How a picture is shown, for which Markdown has no signs. */
export function shownAs({ width, decorative }: PictureAttrs): string {
  return (width === null ? "" : ` width="${width}%"`) + (decorative ? ' role="presentation"' : "");
}

/** What the book makes by itself is told from what is its author's. */
export function made(words: PhrasingContent[]): PhrasingContent[] {
  return inElement('span data-made=""')(words);
}

export function jump(place: string, words: string): PhrasingContent {
  return { type: "link", url: `#${place}`, children: [{ type: "text", value: words }] };
}

/** A place at the start of the first block's words, or above it where it has none. */
export function placedAt(place: PhrasingContent[], blocks: RootContent[]): RootContent[] {
  const [first, ...rest] = blocks;
  if (first?.type !== "paragraph" && first?.type !== "heading") return [paragraph(place), ...blocks];
  return [{ ...first, children: [...place, ...first.children] }, ...rest];
}

export function paragraph(children: PhrasingContent[]): RootContent {
  return { type: "paragraph", children };
}

/** Words in an attribute of HTML, which may stand in a cell of a table and in one line. */
export function inAttribute(words: string): string {
  return escapeXml(words).replaceAll("|", "&#124;").replaceAll("\n", "&#10;");
}

/** Blocks in an element of HTML. */
export function within(element: string, blocks: RootContent[]): RootContent[] {
  return [html(`<${element}>`), ...blocks, html(`</${element.split(" ")[0]!}>`)];
}

/** Signs, which could be Markdown's, as numbers. */
export function signsAsNumbers(words: string): string {
  return words.replace(/[^\p{L}\p{N} ]/gu, (sign) => `&#${sign.codePointAt(0)};`);
}

export function html(value: string): Html {
  return { type: "html", value };
}
