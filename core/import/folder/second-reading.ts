import { FileLinks, type FileLink } from "../arrival/file-links.ts";
import { isWayBack, readLinks } from "../arrival/links-of-html.ts";
import { parseFragment } from "parse5";
import { openingWords } from "../arrival/opening-heading.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { FileNames } from "../file-name.ts";
import { pathFrom } from "../joined-pages.ts";
import { textOfPage } from "../html/page-text.ts";
import { htmlOfMarkdown, isOfNote, isOurs } from "../markdown/second-reading.ts";
import { decodeText } from "../text-encoding.ts";
import { isMarkdown, pagesIn } from "./pages-of-folder.ts";

/** The links of all pages of a folder, those from page to page by the page and the place in it. */
export function linksOfFolder(files: Record<string, Uint8Array>): FileLink[] {
  const links = new FileLinks();
  const pages = pagesIn(Object.keys(files)).sort();
  const names = new FileNames(pages);
  const texts = pages.map((path) => {
    const bytes = files[path]!;
    return isMarkdown(path) ? (decodeText(bytes)?.text ?? "") : textOfPage({ name: path, bytes });
  });
  const htmls = texts.map((text, i) => (isMarkdown(pages[i]!) ? htmlOfMarkdown(text) : text));
  const siteName = siteNameOf(htmls);
  const titles = htmls.map((html, i) => (isMarkdown(pages[i]!) ? null : titleOf(html)));
  for (const [i, path] of pages.entries()) {
    const title = titles[i]!;
    const isAlone = title !== null && titles.indexOf(title) === titles.lastIndexOf(title);
    links.where = path;
    const [text, html] = [texts[i]!, htmls[i]!];
    const hrefOf = (href: string): string => {
      if (/^[a-z][a-z0-9+.-]*:/i.test(href)) return href;
      const to = href.startsWith("#") ? path : names.meant(pathFrom(path, href));
      const fragment = /#(.+)$/s.exec(href)?.[1];
      if (to === null) return href;
      return `#${to}${fragment === undefined ? "" : `#${percentDecoded(fragment)}`}`;
    };
    readLinks(html, links, {
      ...(isMarkdown(path) ? { isOfNote, hasSlugs: true, isOurs: isOurs(text) } : { isOfNote: isWayBack }),
      // The lines are those of the HTML that a text in Markdown stands for.
      ...(isMarkdown(path) ? {} : { path }),
      hrefOf,
      placeOf: (name) => `${path}#${name}`,
      page: path,
      ...(isAlone ? { pageTitle: title } : {}),
      siteName,
    });
  }
  return links.all((fragment) => [fragment, fragment.toLowerCase()]);
}

/** The words of the first heading of the highest level on more than half of the pages; null where they differ. */
function siteNameOf(htmls: readonly string[]): string | null {
  const times = new Map<string, number>();
  for (const html of htmls) {
    const [heading] = /<h1[\s>][^]*?<\/h1>/i.exec(html) ?? [];
    const words = heading ? openingWords(parseFragment(heading)) : "";
    if (words !== "") times.set(words, (times.get(words) ?? 0) + 1);
  }
  return [...times].find(([, count]) => count > Math.max(2, htmls.length / 2))?.[0] ?? null;
}

/** What a page calls itself; null where it does not. A text program may have saved it as a paragraph. */
function titleOf(html: string): string | null {
  const [title] =
    /<title[\s>][^]*?<\/title>/i.exec(html) ??
    /<p\s[^>]*\bclass=["']?(?:[^"'>]*\s)?(?:mso)?title[\s"'>][^]*?<\/p>/i.exec(html) ??
    [];
  return (title && openingWords(parseFragment(title))) || null;
}
