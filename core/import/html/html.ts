import type { Element, ElementContent, Root } from "hast";
import { raw } from "hast-util-raw";
import { VFile } from "vfile";
import { allElements } from "../hast-nodes.ts";
import type { ManuscriptReader, ReadManuscript } from "../manuscript-reader.ts";

/** A page of HTML, or of XHTML as HTML reads it. */
export const html: ManuscriptReader = {
  accepts: ({ bytes }) =>
    /^\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)*(<!doctype html|<html[\s>])/i.test(
      decode(bytes.subarray(0, 2000)),
    ),
  read: ({ bytes }) => readPage(decode(bytes)),
};

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
    pictures: [],
    companions: [],
    leftOut: [],
    whereOf: ({ position }) => (position ? `line ${position.start.line}` : null),
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
  areasAsLinks(page);
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
    const href = element.properties["href"];
    if (typeof href !== "string" || href.startsWith("#") || /^[a-z][a-z0-9+.-]*:/i.test(href)) continue;
    try {
      element.properties["href"] = new URL(href, base).href;
    } catch {
      // It is told as what it is when it is read.
    }
  }
}

/** The areas of image maps (HTML, 4.8.14) become links of their own where the map stands, each with its words. */
function areasAsLinks(tree: Root): void {
  for (const map of allElements(tree)) {
    if (map.tagName !== "map") continue;
    const links = map.children.filter(
      (child): child is Element =>
        child.type === "element" && child.tagName === "area" && typeof child.properties["href"] === "string",
    );
    map.tagName = "p";
    map.children = links.flatMap((area, i) => {
      const href = String(area.properties["href"]);
      const words = String(area.properties["alt"] || area.properties["title"] || href);
      const link: Element = {
        ...area,
        tagName: "a",
        properties: { href },
        children: [{ type: "text", value: words }],
      };
      return i === 0 ? [link] : [{ type: "text" as const, value: " · " }, link];
    });
  }
}
