import { decodeHTML, decodeHTMLAttribute } from "entities";
import { Parser } from "htmlparser2";
import { firstAt } from "../../manuscript/first-at.ts";
import { inLines } from "./inline-elements.ts";

/** A stretch of a source, from one of its characters to another. */
export type Stretch = readonly [from: number, to: number];

/** An attribute as it stands in a source. */
export interface SourceAttribute {
  value: string;
  /** All of it: its name, its value and the quotes. */
  at: Stretch;
}

/** An element of a page, with where it stands in the source. */
export interface SourceElement {
  /** As it is written, with its prefix. */
  written: string;
  /** In small letters, without a prefix. */
  name: string;
  attributes: ReadonlyMap<string, SourceAttribute>;
  /** Its start tag. */
  open: Stretch;
  /** Its end tag; null where it has none, being empty. */
  close: Stretch | null;
  /** Which letters of the page’s text are in it. */
  from: number;
  to: number;
  /** Which element of the body it is, from 0, in the order in which they begin. */
  index: number;
  parent: SourceElement | null;
}

/** The start or the end tag of an element. */
interface Tag {
  at: Stretch;
  element: SourceElement;
}

/** Letters of a page’s text with where they stand in the source: as they are, or as one that stands for them. */
interface Piece {
  from: number;
  text: string;
  at: Stretch;
  isPlain: boolean;
}

const named = /&(?:#x[\da-f]+|#\d+|[a-z][a-z\d]*);|\r\n?/gi;

/** The source of a page of XHTML: its elements, and all text of its body as one, with where each stands. */
export class XhtmlSource {
  /** The elements within the body. */
  readonly elements: SourceElement[] = [];
  /** All letters within the body, as a parser of XML tells them. */
  readonly text: string;
  /** The ids of its outermost elements, by which links lead to its top. */
  readonly namesOfTop: string[] = [];
  /** The words of the title in its head. */
  readonly title: string;
  /** The prefix of its elements’ names, with its colon; empty where they have none. */
  readonly prefix: string = "";
  private readonly pieces: Piece[] = [];
  /** Before which letters of the text a block begins or ends. */
  private readonly breaks: number[] = [];
  /** All tags of the body, in the order of the source. */
  private readonly tags: Tag[];

  constructor(readonly source: string) {
    const open: SourceElement[] = [];
    const attributes = new Map<string, SourceAttribute>();
    let body: SourceElement | null = null;
    let title = "";
    let length = 0;
    let isRaw = false;
    let count = 0;
    const parser = new Parser(
      {
        onattribute: (name, value) => {
          const at = [parser.startIndex, parser.endIndex] as const;
          // What parts lines within an attribute are blanks (XML 1.0, 3.3.3).
          const inLine = value.replace(/\r\n?|[\t\n]/g, " ");
          attributes.set(name, { value: decodeHTMLAttribute(inLine), at });
        },
        onopentag: (written) => {
          const element: SourceElement = {
            written,
            name: written.replace(/^.*:/, "").toLowerCase(),
            attributes: new Map(attributes),
            open: [parser.startIndex, parser.endIndex + 1],
            close: null,
            from: length,
            to: length,
            index: body ? count++ : -1,
            parent: open.at(-1) ?? null,
          };
          attributes.clear();
          const id = element.attributes.get("id")?.value;
          if (!body && id && /^(html|body)$/.test(element.name)) this.namesOfTop.push(id);
          if (body) this.elements.push(element);
          if (body && isApart(element)) this.breaks.push(length);
          if (element.name === "body" && !body) body = element;
          open.push(element);
        },
        ontext: (text) => {
          const at = open.at(-1);
          if (!body) {
            if (at?.name === "title") title += decodeHTML(text);
            return;
          }
          const end = parser.endIndex + 1;
          const pieces = isRaw
            ? [{ from: length, text, at: [parser.startIndex, end] as const, isPlain: false }]
            : piecesOf(text, end - text.length, length);
          for (const piece of pieces) length += piece.text.length;
          this.pieces.push(...pieces);
        },
        oncdatastart: () => (isRaw = true),
        oncdataend: () => (isRaw = false),
        onclosetag: (_, isImplied) => {
          const element = open.pop();
          if (!element) return;
          element.to = length;
          if (body && isApart(element)) this.breaks.push(length);
          if (!isImplied) element.close = [parser.startIndex, parser.endIndex + 1];
          if (element === body) body = null;
        },
      },
      { xmlMode: true, decodeEntities: false },
    );
    parser.end(source);
    this.text = this.pieces.map(({ text }) => text).join("");
    this.tags = this.elements
      .flatMap((element) => [
        { at: element.open, element },
        ...(element.close ? [{ at: element.close, element }] : []),
      ])
      .sort((a, b) => a.at[0] - b.at[0]);
    this.title = title.replace(/\s+/g, " ").trim();
    this.prefix = /^(.*:)?/.exec(this.elements[0]?.written ?? "")?.[1] ?? "";
  }

  /** The words within an element, blanks folded. */
  wordsOf({ from, to }: SourceElement): string {
    return this.text.slice(from, to).replace(/\s+/g, " ").trim();
  }

  /** The words within an element as they are shown, with a blank where a block begins or ends. */
  shownWordsOf({ from, to }: SourceElement): string {
    const ends = this.breaks.filter((at) => at > from && at < to);
    const parts = [from, ...ends].map((at, i) => this.text.slice(at, ends[i] ?? to));
    return parts.join(" ").replace(/\s+/g, " ").trim();
  }

  /** The elements within another. */
  within(element: SourceElement): SourceElement[] {
    const inside: SourceElement[] = [];
    for (let i = element.index + 1; i < this.elements.length; i++) {
      const one = this.elements[i]!;
      if (one.open[0] >= (element.close?.[0] ?? element.open[1])) break;
      inside.push(one);
    }
    return inside;
  }

  /** The elements of which a tag stands at least partly in a stretch of the source. */
  withTagsIn([from, to]: Stretch): Set<SourceElement> {
    const found = new Set<SourceElement>();
    const first = firstAt(this.tags, ({ at }) => at[1] > from);
    for (let i = first; i < this.tags.length && this.tags[i]!.at[0] < to; i++)
      found.add(this.tags[i]!.element);
    return found;
  }

  /** The element of which a start tag ends where a stretch begins, and that of which an end tag begins where it ends. */
  around([from, to]: Stretch): { before: SourceElement | null; behind: SourceElement | null } {
    const before = this.tags[firstAt(this.tags, ({ at }) => at[1] >= from)];
    const behind = this.tags[firstAt(this.tags, ({ at }) => at[0] >= to)];
    return {
      before: before?.at === before?.element.open && before?.at[1] === from ? before.element : null,
      behind: behind?.at === behind?.element.close && behind?.at[0] === to ? behind.element : null,
    };
  }

  /** Where the pieces of source stand that tell some letters of the text; a letter that is told by a name is whole. */
  stretchesOf(from: number, to: number): Stretch[] {
    const stretches: Stretch[] = [];
    const first = firstAt(this.pieces, (piece) => piece.from + piece.text.length > from);
    for (let i = first; i < this.pieces.length && this.pieces[i]!.from < to; i++) {
      const piece = this.pieces[i]!;
      const end = piece.from + piece.text.length;
      const [start] = piece.at;
      const cut: Stretch = piece.isPlain
        ? [start + Math.max(0, from - piece.from), start + Math.min(to, end) - piece.from]
        : piece.at;
      const last = stretches.at(-1);
      if (last && last[1] === cut[0]) stretches[stretches.length - 1] = [last[0], cut[1]];
      else stretches.push(cut);
    }
    return stretches;
  }
}

/** Whether what is before and behind an element is shown apart. */
function isApart({ name }: SourceElement): boolean {
  return name === "br" || !inLines.test(name);
}

/** Text of a source as letters that are as they are and letters that are told by a name or number. */
function piecesOf(source: string, at: number, length: number): Piece[] {
  const pieces: Piece[] = [];
  let from = length;
  const put = (text: string, start: number, end: number, isPlain: boolean): void => {
    if (text === "") return;
    pieces.push({ from, text, at: [at + start, at + end], isPlain });
    from += text.length;
  };
  let done = 0;
  for (const match of source.matchAll(named)) {
    put(source.slice(done, match.index), done, match.index, true);
    done = match.index + match[0].length;
    // XML 1.0, 2.11: every end of a line is one sign.
    put(match[0].startsWith("\r") ? "\n" : decodeHTML(match[0]), match.index, done, false);
  }
  put(source.slice(done), done, source.length, true);
  return pieces;
}

/** The address of an element that is a link; null where it is none (EPUB 3.3, 5.1; SVG 1.1). */
export function addressOf(element: SourceElement): string | null {
  if (element.name !== "a" && element.name !== "area") return null;
  return (element.attributes.get("href") ?? element.attributes.get("xlink:href"))?.value.trim() ?? null;
}

/** The elements of a page that are links, in their order. */
export function linkElements(source: XhtmlSource): SourceElement[] {
  return source.elements.filter((one) => addressOf(one) !== null);
}
