import { deepestNest } from "../../manuscript/depth.ts";

const markers = /^(?:[ \t]*(?:>|[-+*](?=[ \t]|$)|\d{1,9}[.)](?=[ \t]|$)))+/;
/** A line across the page is no list of lists (CommonMark 0.31, 4.1). */
const rule = /^[ \t]*([-*_])(?:[ \t]*\1){2,}[ \t]*$/;
const oneMarker = />|[-+*](?=[ \t]|$)|\d{1,9}[.)](?=[ \t]|$)/g;

/**
 * The first line of a text in Markdown at which lists and quotes lie too deep in each other; null where none does.
 * It only counts the markers of containers (CommonMark 0.31, 5), so that its own work is no more than reading.
 */
export function lineTooDeep(text: string): number | null {
  /** The columns at which the lists that are open begin. */
  let open: number[] = [];
  let line = 0;
  for (const content of text.split("\n")) {
    line++;
    const indent = content.length - content.trimStart().length;
    if (content.trim() === "" || rule.test(content)) continue;
    open = open.filter((column) => column < indent);
    const [found] = markers.exec(content) ?? [];
    if (found === undefined) continue;
    const count = found.match(oneMarker)!.length;
    if (open.length + count > deepestNest) return line;
    open.push(indent);
  }
  return null;
}

const openTags = 200;
const tag = /<(\/?)([a-z][\w-]*)[^>]*>/gi;
/** Elements that have no end, or whose end may be left out (WHATWG HTML, 13.1.2). */
const endless = new Set(
  "area base br col embed hr img input link meta param source track wbr p li dt dd tr td th thead tbody tfoot option".split(
    " ",
  ),
);

/** The first line of a text at which very many HTML elements are open; null where there is none. */
export function lineOfManyTags(text: string): number | null {
  let open = 0;
  let line = 0;
  for (const content of text.split("\n")) {
    line++;
    for (const [, end, name] of content.matchAll(tag))
      if (!endless.has(name!.toLowerCase())) open = Math.max(0, open + (end ? -1 : 1));
    if (open > openTags) return line;
  }
  return null;
}
