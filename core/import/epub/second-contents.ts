import { Parser } from "htmlparser2";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { saysTitle } from "./says-title.ts";

type Attributes = Record<string, string>;

/**
 * The words that the table of contents of an e-book has for pages that neither have a heading nor begin by saying them: a
 * book has them as headings of these pages.
 * @param texts of the pages and lists, by their paths
 * @param lists the paths of its navigation and its NCX, in that order
 * @param pathFrom where an address in a file leads
 */
export function titlesOfContents(
  texts: ReadonlyMap<string, string>,
  pages: readonly string[],
  lists: readonly string[],
  pathFrom: (file: string, href: string) => string,
): Map<string, string> {
  const titles = new Map<string, string>();
  const known = new Set(pages);
  const entries = lists.map((path) => entriesOf(texts.get(path)!));
  const list = entries.findIndex(({ length }) => length > 0);
  const met = new Set<string>();
  for (const { href, label } of entries[list] ?? []) {
    const path = pathFrom(lists[list]!, href);
    if (!known.has(path) || met.has(path)) continue;
    met.add(path);
    const beginning = beginningOf(texts.get(path)!);
    const fragment = /#(.+)$/s.exec(href)?.[1];
    const isTop = fragment === undefined || beginning.ids.has(percentDecoded(fragment));
    if (!isTop || beginning.hasHeading || !beginning.isShown) continue;
    const parts = [1, 2, 3].map((count) => beginning.blocks.slice(0, count));
    if (!parts.some((words) => saysTitle(words, label))) titles.set(path, label);
  }
  return titles;
}

/** The entries of a navigation's table of contents, or of an NCX. */
function entriesOf(text: string): { href: string; label: string }[] {
  const found: { href: string; label: string }[] = [];
  const isNcx = /<(\w+:)?navMap\b/.test(text);
  let words = "";
  let href: string | null = null;
  /** How many elements are open within the table, itself among them. */
  let depth = 0;
  const isTable = (name: string, attributes: Attributes): boolean =>
    isNcx
      ? name === "navMap"
      : name === "nav" && /\b(toc|doc-toc)\b/.test(`${attributes["epub:type"]} ${attributes["role"]}`);
  const add = (): void => {
    const label = words.replace(/\s+/g, " ").trim();
    if (href !== null && label !== "") found.push({ href, label });
    [words, href] = ["", null];
  };
  const parser = new Parser(
    {
      onopentag: (written, attributes) => {
        const name = written.replace(/^.*:/, "");
        if (depth > 0 || isTable(name, attributes)) depth += 1;
        if (depth === 0) return;
        if (isNcx && name === "navPoint") words = "";
        if (name === "a") [words, href] = ["", attributes["href"] ?? null];
        if (isNcx && name === "content") {
          href = attributes["src"] ?? null;
          add();
        }
      },
      ontext: (said) => {
        if (depth > 0) words += said;
      },
      onclosetag: (written) => {
        if (depth === 0) return;
        if (written.replace(/^.*:/, "") === "a") add();
        depth -= 1;
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.end(text);
  return found;
}

const block =
  /^(h[1-6]|p|div|center|td|th|tr|li|dt|dd|dl|ul|ol|table|caption|figcaption|figure|pre|blockquote|section|article|header)$/;

/** How a page begins: its words block by block, and the ids that stand before all words. */
function beginningOf(text: string): {
  blocks: string[];
  ids: Set<string>;
  hasHeading: boolean;
  isShown: boolean;
} {
  const blocks = [""];
  const ids = new Set<string>();
  let [hasHeading, isShown, hasWords, isInBody] = [false, false, false, false];
  const parser = new Parser(
    {
      onopentag: (written, attributes) => {
        const name = written.replace(/^.*:/, "").toLowerCase();
        if (name === "body") isInBody = true;
        if (/^h[1-6]$/.test(name)) hasHeading = true;
        if (/^(img|image)$/.test(name)) isShown = true;
        if (block.test(name)) blocks.push("");
        if (!hasWords && attributes["id"]) ids.add(attributes["id"]);
      },
      ontext: (words) => {
        if (!isInBody) return;
        blocks[blocks.length - 1] += words;
        if (words.trim() !== "") [isShown, hasWords] = [true, true];
      },
      onclosetag: (name) => {
        if (block.test(name.toLowerCase())) blocks.push("");
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.end(text);
  return { blocks: blocks.filter((words) => words.trim() !== ""), ids, hasHeading, isShown };
}
