import { manuscriptFormats } from "./formats.ts";
import type { BroughtFile } from "./manuscript-reader.ts";

const save = "Open it in the program that made it, and save it as a text document (DOCX).";

/** Files that people bring as manuscripts and that no reader knows yet, by how their bytes begin, with what to do. */
const beginnings: readonly (readonly [start: readonly number[], what: string, advice: string])[] = [
  [[0x7b, 0x5c, 0x72, 0x74, 0x66], "rich text (RTF)", save],
  [
    [0x25, 0x50, 0x44, 0x46, 0x2d],
    "a PDF, in which the text of a book is set and not written",
    "Bring the document that it was made from.",
  ],
  [[0xd0, 0xcf, 0x11, 0xe0], "a text document of an older kind (DOC)", save],
];

/** Ways to write text that are not Markdown, by the names of files, and by what only they have. */
const markups: readonly (readonly [name: RegExp, content: RegExp, what: string])[] = [
  [/\.rst$/i, /^\.\. [\w-]+::( |$)/m, "text in reStructuredText"],
  [/\.(tex|latex)$/i, /^\\documentclass\b/m, "text in LaTeX"],
  [/\.(adoc|asciidoc)$/i, /^:(toc|doctype|sectnums|icons):/m, "text in AsciiDoc"],
  [/\.org$/i, /^#\+(TITLE|AUTHOR|OPTIONS):/m, "text in Org"],
];

/** A page, or an archive: what stands further in, such as an example of another markup, says nothing of the file. */
const beginsAsKnown = /^(\s*<[!?a-z]|PK\x03\x04)/i;

/** Whether a file is called as one that a reader reads. */
function isNamedAsKnown(name: string): boolean {
  const lower = name.toLowerCase();
  return manuscriptFormats.some(({ endings }) => endings.some((ending) => lower.endsWith(ending)));
}

const turn = "Turn it into a web page or a text document (DOCX), and bring that.";

/** The elements with which pages and parts of them begin. */
const ofPages =
  /^(html|head|title|meta|link|body|main|article|section|header|nav|div|p|h[1-6]|ul|ol|dl|table|a)$/i;
const prolog =
  /^\ufeff?\s*(<\?xml[^>]*>)?(?:\s|<\?[^>]*>|<!--[^]*?-->)*(?:<!DOCTYPE\s+([\w.:-]+)[^>[]*(?:\[[^\]]*\])?\s*>)?\s*/i;

/** Whether a text is XML (1.0, 2.8) of a kind that no reader knows: read as a page it would lose what it says. */
function isOtherXml(text: string): boolean {
  const [whole = "", declared, type = "html"] = prolog.exec(text) ?? [];
  const [, name, attributes = ""] = /^<(?:[\w.-]+:)?([\w.-]+)([^>]*)>?/.exec(text.slice(whole.length)) ?? [];
  if (name === undefined) return false;
  const namespace = /\sxmlns(?::[\w.-]+)?\s*=\s*["']([^"']*)/.exec(attributes)?.[1];
  if (declared === undefined && namespace === undefined && /^html$/i.test(type)) return false;
  if (name === "document" && /opendocument/.test(attributes)) return false;
  const isPage = /^html$/i.test(name) || namespace === undefined || /xhtml/.test(namespace);
  return !/^html$/i.test(type) || !ofPages.test(name) || !isPage;
}

/** What is wrong with a file that is known and cannot be read, and what to do; null for any other. */
export function adviceFor({ name, bytes }: BroughtFile): string | null {
  const told = (what: string, advice: string): string =>
    `“${name}” is ${what}, which Vennet cannot bring in yet. ${advice}`;
  const text = new TextDecoder().decode(bytes.subarray(0, 20_000));
  const isKnown = isNamedAsKnown(name) || beginsAsKnown.test(text);
  for (const [ending, content, what] of markups)
    if (ending.test(name) || (!isKnown && content.test(text))) return told(what, turn);
  if (isOtherXml(text)) return told("XML of another kind than web pages are", turn);
  if (
    /^(From|MIME-Version|Snapshot-Content-Location): /.test(text) &&
    /^Content-Type: *multipart\/related/im.test(text)
  )
    return told(
      "a web page packed as a message (MHTML)",
      "Save it as a complete web page, pack the page and its folder as a ZIP, and bring that.",
    );
  for (const [start, what, advice] of beginnings)
    if (start.every((byte, i) => bytes[i] === byte)) return told(what, advice);
  const isEmpty = bytes.length < 10_000 && new TextDecoder().decode(bytes).trim() === "";
  return isEmpty ? `“${name}” has no words in it. See that it was saved, and bring it again.` : null;
}
