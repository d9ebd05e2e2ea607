import GithubSlugger from "github-slugger";
import type { Element, Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "../hast-nodes.ts";

const given = /\s*\{\s*#([^\s{}]+)[^{}]*\}\s*$/;

/** Gives headings the ids that are written behind them, as `{#low-water}`, and takes these out of their words. */
export function idsBehindHeadings(tree: Root): void {
  for (const heading of headingsOf(tree)) {
    const last = heading.children.at(-1);
    if (last?.type !== "text") continue;
    const id = given.exec(last.value)?.[1];
    if (id === undefined) continue;
    last.value = last.value.replace(given, "");
    heading.properties["id"] = id;
  }
}

/** Gives headings the ids of their words, by which links from other files know them. */
export function idsOfWords(tree: Root): void {
  const slugger = new GithubSlugger();
  for (const heading of headingsOf(tree)) heading.properties["id"] ??= slugger.slug(toString(heading));
}

function headingsOf(tree: Root): Element[] {
  return allElements(tree).filter(({ tagName }) => /^h[1-6]$/.test(tagName));
}
