import type { Element, ElementContent, Root } from "hast";
import { raw } from "hast-util-raw";
import { parse, type DefaultTreeAdapterMap } from "parse5";
import { VFile } from "vfile";
import { linksOfHtml } from "../arrival/links-of-html.ts";
import { areaOfMap } from "../areas.ts";
import { pictureOfSvg } from "../svg-pictures.ts";
import { allElements } from "../hast-nodes.ts";
import type { AboutManuscript, ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";

/** A page of HTML, or of XHTML as HTML reads it. */
export const html: ManuscriptReader = {
  accepts: ({ name, bytes }) => isPage(name, decode(bytes.subarray(0, 20_000))),
  read: ({ bytes }) => readPage(decode(bytes)),
  linksOf: ({ bytes }) => linksOfHtml(decode(bytes)),
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

/** The text of a page, in the encoding that it says it has (HTML, 13.2.3), else in UTF-8. */
function decode(bytes: Uint8Array): string {
  const start = new TextDecoder("latin1").decode(bytes.subarray(0, 1024));
  const said = /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(start)?.[1];
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  try {
    return new TextDecoder(said ?? "utf-8").decode(bytes);
  } catch {
    // An encoding that nobody knows.
    return new TextDecoder().decode(bytes);
  }
}

function readPage(text: string): ReadManuscript {
  return {
    tree: readHtml(text),
    about: aboutPage(text),
    pictures: [],
    companions: [],
    leftOut: [],
    whereOf: ({ position }) => (position ? `line ${position.start.line}` : null),
  };
}

/** What a page says of itself in its head. */
function aboutPage(text: string): AboutManuscript {
  const page = parse(text);
  const root = page.childNodes.find(
    (node): node is DefaultTreeAdapterMap["element"] => node.nodeName === "html",
  );
  const head = root?.childNodes.find(
    (node): node is DefaultTreeAdapterMap["element"] => node.nodeName === "head",
  );
  const inHead = (head?.childNodes ?? []).filter(
    (node): node is DefaultTreeAdapterMap["element"] => "attrs" in node,
  );
  const attribute = (of: DefaultTreeAdapterMap["element"] | undefined, name: string): string | null =>
    of?.attrs.find((one) => one.name === name)?.value.trim() || null;
  const title = inHead.find(({ tagName }) => tagName === "title")?.childNodes[0];
  const author = inHead.find((one) => attribute(one, "name")?.toLowerCase() === "author");
  return {
    title: title && "value" in title ? title.value.trim() || null : null,
    author: attribute(author, "content"),
    language: attribute(root, "lang"),
  };
}

/** The tree of a page as browsers read it, without what it says of itself. */
export function readHtml(text: string): Root {
  const page = raw(
    {
      type: "root",
      children: [{ type: "raw", value: text, position: wholeOf(text) }],
    } as unknown as Root,
    { file: new VFile(text) },
  ) as Root;
  const base = allElements(page).find(({ tagName }) => tagName === "base")?.properties["href"];
  if (typeof base === "string" && /^https?:/i.test(base)) startFrom(page, base);
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

/** The areas of image maps (HTML, 4.8.14) go with the pictures that use them; those that none uses become links. */
function areasOfMaps(tree: Root): void {
  const all = allElements(tree);
  const users = all.filter(
    ({ tagName, properties }) => tagName === "img" && typeof properties["useMap"] === "string",
  );
  for (const map of all) {
    if (map.tagName !== "map") continue;
    const areas = allElements(map).flatMap((one) => (one.tagName === "area" ? (areaOfMap(one) ?? []) : []));
    const name = [map.properties["name"], map.properties["id"]].map(String);
    const pictures = users.filter(({ properties }) =>
      name.includes(String(properties["useMap"]).replace(/^#/, "")),
    );
    for (const picture of pictures) picture.properties["dataAreas"] = JSON.stringify(areas);
    map.tagName = "span";
    map.children = map.children.flatMap((child): ElementContent[] => {
      const isArea = child.type === "element" && child.tagName === "area";
      if (!isArea || pictures.length > 0) return isArea ? [] : [child];
      const area = areaOfMap(child);
      const link: Element = { ...child, tagName: "a", properties: { href: area?.href ?? "" } };
      return area
        ? [
            { ...link, children: [{ type: "text", value: area.alt }] },
            { type: "text", value: " " },
          ]
        : [];
    });
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
