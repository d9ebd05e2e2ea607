import { FileLinks, type FileLink } from "../arrival/file-links.ts";
import { isWayBack, readLinks } from "../arrival/links-of-html.ts";
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
  for (const path of pages) {
    links.place(path);
    links.where = path;
    const bytes = files[path]!;
    const text = isMarkdown(path) ? (decodeText(bytes)?.text ?? "") : textOfPage({ name: path, bytes });
    const hrefOf = (href: string): string => {
      if (/^[a-z][a-z0-9+.-]*:/i.test(href)) return href;
      const to = href.startsWith("#") ? path : names.meant(pathFrom(path, href));
      const fragment = /#(.+)$/s.exec(href)?.[1];
      if (to === null) return href;
      return `#${to}${fragment === undefined ? "" : `#${percentDecoded(fragment)}`}`;
    };
    const html = isMarkdown(path) ? htmlOfMarkdown(text) : text;
    // A page without a heading is called by its file’s name.
    if (!/<h[1-6][\s>]/i.test(html) && !/<meta name="vennet-counts"/.test(html))
      links.text(
        path
          .split("/")
          .at(-1)!
          .replace(/\.[^.]+$/, ""),
      );
    readLinks(html, links, {
      ...(isMarkdown(path) ? { isOfNote, hasSlugs: true, isOurs: isOurs(text) } : { isOfNote: isWayBack }),
      // The lines are those of the HTML that a text in Markdown stands for.
      ...(isMarkdown(path) ? {} : { path }),
      hrefOf,
      placeOf: (name) => `${path}#${name}`,
    });
  }
  return links.all((fragment) => [fragment, fragment.toLowerCase()]);
}
