import { micromark } from "micromark";
import { gfm, gfmHtml } from "micromark-extension-gfm";
import type { FileLink } from "../arrival/file-links.ts";
import { linksOfHtml } from "../arrival/links-of-html.ts";
import { attributeList } from "./attribute-lists.ts";
import { bareAddresses } from "./bare-addresses.ts";
import { linesOfContents } from "./contents-marks.ts";
import {
  comparedLabel,
  definitionsIn,
  labelsIn,
  readInStretches,
  stretchesOf,
} from "../../markdown/stretches.ts";

/**
 * The links of a text in Markdown, by way of the HTML that it stands for, as browsers read that.
 * @param hrefOf where a link of it leads
 */
export function linksOfMarkdown(text: string, hrefOf = (href: string): string => href): FileLink[] {
  const options = { isOfNote, hasSlugs: true, isOurs: isOurs(text), hrefOf };
  const links = linksOfHtml(htmlOfMarkdown(text), options);
  // “www.” at the end of a sentence is no address (GFM 0.29, 6.9).
  const all = links.filter(({ href, words }) => !/^http:\/\/www$/i.test(href) || !/^www$/i.test(words));
  return all.map((link) => ({ ...link, where: null }));
}

/** Whether a text is an export of ours: what it counts stands before it. */
export function isOurs(text: string): boolean {
  return /^\ufeff?---[ \t]*\r?\n(?:(?!---|\.\.\.).*\r?\n)*counts:/.test(text);
}

/** The end of a link, and braces right behind it. */
const behindLinks = /(\]\([^()\n]*\)|\]\[[^[\]\n]*\])(\{[^{}\n]*\})/g;
const withoutAttributes = (whole: string, link: string, list: string): string =>
  attributeList.test(list) ? link : whole;

/** The HTML that a text stands for, with all its notes, also those that nothing calls. */
export function htmlOfMarkdown(text: string, length?: number): string {
  const body = (
    isOurs(text) ? text : text.replace(behindLinks, withoutAttributes).replace(linesOfContents, "")
  )
    .replace(/^( {0,3}#{1,6}[ \t]+)(.*?)[ \t]*\{[ \t]*#([^\s{}]+)[^{}\n]*\}[ \t]*$/gm, '$1<a id="$3"></a>$2')
    .replace(/^\ufeff?---[ \t]*\r?\n(?:.*:.*\r?\n|[ \t#-].*\r?\n|\r?\n)*?(?:---|\.\.\.)[ \t]*\r?\n/, "");
  const stretches = stretchesOf(body, length);
  if (stretches.length === 1) return html(`${body}\n\n${callsOfNotes(body)}`);
  const definitions = definitionsOf(stretches);
  const read = readInStretches(stretches, (stretch, isLast) => readStretch(stretch, definitions, isLast));
  return [...read.map(({ text }) => text), ...read.map(({ notes }) => notes)].join("");
}

type HtmlExtension = ReturnType<typeof gfmHtml>;

function html(text: string, ...more: HtmlExtension[]): string {
  return micromark(text, {
    allowDangerousHtml: true,
    allowDangerousProtocol: true,
    extensions: [gfm()],
    htmlExtensions: [gfmHtml({ clobberPrefix: "" }), bareAddresses(), ...more],
  });
}

/** The labels of the notes that a text has, with their sign. */
function notesOf(text: string): string[] {
  return [...text.matchAll(/^ {0,3}\[(\^[^\]\n]+)\]:/gm)].map(([, label]) => label!);
}

/** The signs of all notes that a text has, so that each of them is shown. */
function callsOfNotes(text: string): string {
  return notesOf(text)
    .map((label) => `[${label}]`)
    .join(" ");
}

const [before, behind] = ["vennet stretch begins", "vennet stretch ends"];
const [opened, closed] = [`<p>${before}</p>`, `<p>${behind}</p>`];
const notesBegin = "<section data-footnotes";

/** What a stretch stands for, its notes apart; null where something is open at its end, unless that is the text’s. */
function readStretch(
  stretch: string,
  definitions: ReadonlyMap<string, string>,
  isLast: boolean,
): { text: string; notes: string } | null {
  const own = new Set(notesOf(stretch).map(comparedLabel));
  const known = [...labelsIn(stretch)].flatMap((name) =>
    own.has(name) ? [] : (definitions.get(name) ?? []),
  );
  const prefix = [...known, before].join("\n\n");
  const end = isLast ? "" : `${behind}\n\n`;
  const all = html(`${prefix}\n\n${stretch}\n\n${end}${callsOfNotes(stretch)}`);
  const shown = all.slice(all.indexOf(opened) + opened.length);
  const notes = shown.lastIndexOf(notesBegin) === -1 ? shown.length : shown.lastIndexOf(notesBegin);
  const ends = isLast ? notes : shown.lastIndexOf(closed);
  return ends === -1 ? null : { text: shown.slice(0, ends), notes: shown.slice(notes) };
}

/** What may be open at the end of a stretch begins so: a fence, or HTML (CommonMark 0.31, 4.5 and 4.6). */
const mayBeOpen = /^ {0,3}(?:`{3}|~{3}|<)/m;

/** What defines each label that a text has, as its stretches have it; a note is read where it stands, and has only to be known. */
function definitionsOf(stretches: readonly string[]): Map<string, string> {
  const found = new Map<string, string>();
  const keep = (name: string, definition: string): void => {
    if (!found.has(name)) found.set(name, definition);
  };
  readInStretches(stretches, (stretch, isLast) => {
    const maybe = definitionsIn(stretch);
    const notes = maybe.filter(({ name }) => name.startsWith("^"));
    for (const { name, label } of notes) keep(name, `[${label}]: x`);
    if (notes.length === maybe.length && !mayBeOpen.test(stretch)) return true;
    const read: [label: string, definition: string][] = [];
    const all = html(`${stretch}\n\n${behind}`, partsOfDefinitions(read));
    if (!isLast && !all.includes(closed)) return null;
    for (const [label, definition] of read) keep(comparedLabel(label.slice(1, -1)), definition);
    return true;
  });
  return found;
}

/** Takes down each definition of a text: its label, where it leads, and its title. */
function partsOfDefinitions(found: [label: string, definition: string][]): HtmlExtension {
  return {
    exit: {
      definitionLabel(token) {
        const label = this.sliceSerialize(token);
        found.push([label, `${label}: `]);
      },
      definitionDestination(token) {
        found.at(-1)![1] += this.sliceSerialize(token);
      },
      definitionTitle(token) {
        found.at(-1)![1] += ` ${this.sliceSerialize(token)}`;
      },
    },
  };
}

/** Whether a link is a note’s sign, or the way back from it. */
export function isOfNote(attribute: (name: string) => string | undefined): boolean {
  return attribute("data-footnote-ref") !== undefined || attribute("data-footnote-backref") !== undefined;
}
