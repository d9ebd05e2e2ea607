import { percentDecoded } from "../../destination/percent-decoded.ts";
import { FileNames } from "../file-name.ts";
import { pathFrom } from "../joined-pages.ts";

const isPage = (path: string): boolean =>
  /\.(x?html?|md|markdown)$/i.test(path) && !/(^|\/)(\.|__MACOSX\/|node_modules\/)/.test(path);

/** Whether a page is Markdown, by its name. */
export function isMarkdown(path: string): boolean {
  return /\.(md|markdown)$/i.test(path);
}

/** The pages of a folder by the names of its files; what programs save beside a page for it alone is none. */
export function pagesIn(names: readonly string[]): string[] {
  const ofPages = new Set(names.filter(isPage).map((path) => `${path.replace(/\.[^.]+$/, "")}_files/`));
  return names.filter((path) => isPage(path) && ![...ofPages].some((folder) => path.startsWith(folder)));
}

/**
 * The pages in the order in which they are read: the one that is called index or readme first, then as it links to them,
 * page by page; those to which nothing leads come last, by their names.
 */
export function inReadingOrder(pages: readonly string[], hrefsOf: (path: string) => string[]): string[] {
  const byName = [...pages].sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
  const depth = (path: string): number => path.split("/").length;
  const firsts = byName
    .filter((path) => /(^|\/)(index|readme|default|toc|contents)\.[^./]+$/i.test(path))
    .sort((a, b) => depth(a) - depth(b));
  const order = new Set<string>();
  const waiting = [firsts[0] ?? byName[0]!];
  const known = new FileNames(pages);
  while (waiting.length > 0) {
    const path = waiting.shift()!;
    if (order.has(path)) continue;
    order.add(path);
    for (const href of hrefsOf(path)) {
      if (/^[a-z][a-z0-9+.-]*:|^#/i.test(href)) continue;
      const to = known.meant(pathFrom(path, percentDecoded(href)));
      if (to !== null) waiting.push(to);
    }
  }
  return [...order, ...byName.filter((path) => !order.has(path))];
}
