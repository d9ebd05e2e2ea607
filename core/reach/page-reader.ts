import { Parser } from "htmlparser2";
import { PageContent } from "./page-content.ts";
import { refreshTarget } from "./refresh.ts";

/** What is looked for in a page beside what it is called and about. */
export interface WantedOfPage {
  /** The parts of it: the ids, or names of `a` elements, that each may have. */
  parts: readonly (readonly string[])[];
  /** Whether words are looked for in all of its text. */
  isTextWanted: boolean;
}

export const nothingWanted: WantedOfPage = { parts: [], isTextWanted: false };

/** What was read of a page. */
export interface PageFacts {
  title: string | null;
  /** Its first heading of the first or second rank. */
  heading: string | null;
  /** Which of the wanted ids and names it has, with the words that stand there. */
  parts: ReadonlyMap<string, string>;
  /** Its headings of the first three ranks, and the words that it is about. */
  headings: readonly string[];
  content: string;
  /** The primary subtag of its language, as it says. */
  language: string | null;
  /** All of its text, where that is wanted. */
  text: string | null;
  hasPasswordField: boolean;
  /** Whether scripts may make more of it than was read. */
  hasScripts: boolean;
  /** Where it leads by itself, as it is written, and what that is relative to if it says. */
  leadsOn: { to: string; base: string | null } | null;
  /** Its words from the start, blanks made one. */
  words: string;
  /** Whether it was read to its end. */
  isWhole: boolean;
}

const wordsKept = 4_000;
const pieceLength = 16 * 1024;
const titleLength = 300;
/** A page whose elements lie deeper in each other is not read on: its parser's work grows with the square of it. */
const deepest = 5_000;
const unseen = new Set(["script", "style", "template", "noscript"]);
/** Elements within a word, which end none at their edges (WHATWG HTML, section 4.5, and its older ones). */
const withinWords = new Set(
  "a abbr acronym b bdi bdo big cite code data del dfn em font i ins kbd label mark nobr q s samp small span strike strong sub sup time tt u var wbr".split(
    " ",
  ),
);

/**
 * Reads a page piece by piece, as it comes from a server, for its title, its first heading, its words and
 * the parts that are asked for. It knows when it has seen enough, so that no page has to be read to its end.
 */
export class PageReader {
  private title: string | null = null;
  private heading: string | null = null;
  private words = "";
  private text = "";
  private language: string | null = null;
  private readonly found = new Set<string>();
  private readonly content = new PageContent();
  private hasPasswordField = false;
  private hasScripts = false;
  private leadsOn: string | null = null;
  private base: string | null = null;
  private isWhole = false;
  private inside: "title" | "heading" | null = null;
  private unseenDepth = 0;
  private depth = 0;
  private isTooDeep = false;
  private readonly parser: Parser;

  private readonly names: ReadonlySet<string>;

  constructor(private readonly wanted: WantedOfPage) {
    this.names = new Set(wanted.parts.flat());
    this.parser = new Parser({
      onopentag: (name, attributes) => this.open(name, attributes),
      ontext: (text) => this.takeText(text),
      onclosetag: (name) => this.close(name),
    });
  }

  push(text: string): void {
    // In pieces, since a parser that is at work cannot be stopped.
    for (let from = 0; from < text.length && !this.isTooDeep; from += pieceLength)
      this.parser.write(text.slice(from, from + pieceLength));
  }

  end(): void {
    if (this.isTooDeep) return;
    this.isWhole = true;
    this.parser.end();
  }

  /** Whether more of the page would tell nothing that is asked for. */
  get hasEnough(): boolean {
    if (this.isTooDeep) return true;
    return (
      this.wanted.parts.every((names) => names.some((name) => this.found.has(name))) &&
      this.content.hasParts &&
      !this.wanted.isTextWanted &&
      this.title !== null &&
      this.content.isFull &&
      this.inside === null
    );
  }

  facts(): PageFacts {
    const clean = (text: string | null, limit: number): string | null => {
      const words = (text ?? "").replace(/\s+/g, " ").trim().slice(0, limit);
      return words === "" ? null : words;
    };
    return {
      title: clean(this.title, titleLength),
      heading: clean(this.heading, titleLength),
      parts: this.content.wordsAtParts(),
      headings: this.content.headings,
      content: this.content.words(),
      language: this.language,
      text: this.wanted.isTextWanted ? this.text : null,
      hasPasswordField: this.hasPasswordField,
      hasScripts: this.hasScripts,
      leadsOn: this.leadsOn === null ? null : { to: this.leadsOn, base: this.base },
      words: clean(this.words, wordsKept) ?? "",
      isWhole: this.isWhole,
    };
  }

  private open(name: string, attributes: Record<string, string>): void {
    if (++this.depth > deepest) this.isTooDeep = true;
    if (unseen.has(name)) this.unseenDepth++;
    this.words += " ";
    if (name === "script") this.hasScripts = true;
    // What stands in `noscript` is for browsers that run none.
    if (
      name === "meta" &&
      this.unseenDepth === 0 &&
      attributes["http-equiv"]?.trim().toLowerCase() === "refresh"
    )
      this.leadsOn ??= refreshTarget(attributes["content"] ?? "");
    if (name === "base") this.base ??= attributes["href"] ?? null;
    if (name === "html")
      this.language = /^[a-z]{2,3}/i.exec(attributes["lang"] ?? "")?.[0].toLowerCase() ?? null;
    const parts = [attributes["id"], name === "a" ? attributes["name"] : undefined].filter(
      (one): one is string => one !== undefined && this.names.has(one),
    );
    for (const part of parts) this.found.add(part);
    this.content.begin(name, attributes, parts);
    this.endWord(name);
    if (name === "input" && attributes["type"]?.toLowerCase() === "password") this.hasPasswordField = true;
    // A title inside a picture is not the page's.
    if (name === "title" && this.title === null) {
      this.title = "";
      this.inside = "title";
    } else if ((name === "h1" || name === "h2") && this.heading === null) {
      this.heading = "";
      this.inside = "heading";
    }
  }

  private takeText(text: string): void {
    if (this.inside === "title") this.title += text;
    else if (this.unseenDepth === 0) {
      this.content.text(text);
      if (this.wanted.isTextWanted) this.text += text;
      if (this.inside === "heading") this.heading += text;
      if (this.words.length < wordsKept) this.words += text;
    }
  }

  private endWord(name: string): void {
    if (this.wanted.isTextWanted && !withinWords.has(name)) this.text += " ";
  }

  private close(name: string): void {
    this.depth--;
    this.words += " ";
    this.endWord(name);
    this.content.end(name);
    if (unseen.has(name)) this.unseenDepth = Math.max(0, this.unseenDepth - 1);
    if ((this.inside === "title" && name === "title") || (this.inside === "heading" && /^h[12]$/.test(name)))
      this.inside = null;
  }
}
