import { micromark } from "micromark";
import { gfm, gfmHtml } from "micromark-extension-gfm";
import type { FileLink } from "../arrival/file-links.ts";
import { linksOfHtml } from "../arrival/links-of-html.ts";

/** The links of a text in Markdown, by way of the HTML that it stands for, as browsers read that. */
export function linksOfMarkdown(text: string): FileLink[] {
  const links = linksOfHtml(htmlOfMarkdown(text), { isOfNote, hasSlugs: true, isOurs: isOurs(text) });
  return links.map((link) => ({ ...link, where: null }));
}

/** Whether a text is an export of ours: what it counts stands before it. */
export function isOurs(text: string): boolean {
  return /^\ufeff?---[ \t]*\r?\n(?:(?!---|\.\.\.).*\r?\n)*counts:/.test(text);
}

/** The HTML that a text stands for, with all its notes, also those that nothing calls. */
export function htmlOfMarkdown(text: string): string {
  const body = text
    .replace(/^( {0,3}#{1,6}[ \t]+)(.*?)[ \t]*\{[ \t]*#([^\s{}]+)[^{}\n]*\}[ \t]*$/gm, '$1<a id="$3"></a>$2')
    .replace(/^\ufeff?---[ \t]*\r?\n(?:.*:.*\r?\n|[ \t#-].*\r?\n|\r?\n)*?(?:---|\.\.\.)[ \t]*\r?\n/, "");
  const notes = [...body.matchAll(/^ {0,3}\[\^([^\]\n]+)\]:/gm)].map(([, label]) => `[^${label!}]`);
  return micromark(`${body}\n\n${notes.join(" ")}`, {
    allowDangerousHtml: true,
    allowDangerousProtocol: true,
    extensions: [gfm()],
    htmlExtensions: [gfmHtml({ clobberPrefix: "" })],
  });
}

/** Whether a link is a note’s sign, or the way back from it. */
export function isOfNote(attribute: (name: string) => string | undefined): boolean {
  return attribute("data-footnote-ref") !== undefined || attribute("data-footnote-backref") !== undefined;
}
