import { micromark } from "micromark";
import { gfm, gfmHtml } from "micromark-extension-gfm";
import type { FileLink } from "../arrival/file-links.ts";
import { linksOfHtml } from "../arrival/links-of-html.ts";

/** The links of a text in Markdown, by way of the HTML that it stands for, as browsers read that. */
export function linksOfMarkdown(text: string): FileLink[] {
  // Notes that nothing calls would not be written: each is called once more at the end.
  const notes = [...text.matchAll(/^ {0,3}\[\^([^\]\n]+)\]:/gm)].map(([, label]) => `[^${label!}]`);
  const html = micromark(`${text}\n\n${notes.join(" ")}`, {
    allowDangerousHtml: true,
    allowDangerousProtocol: true,
    extensions: [gfm()],
    // Raw HTML is for the tree to judge, not for a filter.
    htmlExtensions: [{ ...gfmHtml({ clobberPrefix: "" }) }],
  });
  const isOfNote = (attribute: (name: string) => string | undefined): boolean =>
    attribute("data-footnote-ref") !== undefined || attribute("data-footnote-backref") !== undefined;
  return linksOfHtml(html, { isOfNote, hasSlugs: true }).map((link) => ({ ...link, where: null }));
}
