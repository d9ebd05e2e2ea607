import { Parser } from "htmlparser2";

/** What was read of a page. */
export interface PageFacts {
  title: string | null;
  /** Its first heading of the first or second rank. */
  heading: string | null;
  /** Which of the wanted ids and names it has. */
  parts: ReadonlySet<string>;
  hasPasswordField: boolean;
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

/**
 * Reads a page piece by piece, as it comes from a server, for its title, its first heading, its words and
 * the parts that are asked for. It knows when it has seen enough, so that no page has to be read to its end.
 */
export class PageReader {
  private title: string | null = null;
  private heading: string | null = null;
  private words = "";
  private readonly parts = new Set<string>();
  private hasPasswordField = false;
  private isWhole = false;
  private inside: "title" | "heading" | null = null;
  private unseenDepth = 0;
  private depth = 0;
  private isTooDeep = false;
  private readonly parser: Parser;

  constructor(private readonly wanted: ReadonlySet<string>) {
    this.parser = new Parser({
      onopentag: (name, attributes) => this.open(name, attributes),
      ontext: (text) => this.text(text),
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
      this.parts.size === this.wanted.size &&
      this.title !== null &&
      (this.heading !== null || this.words.length >= wordsKept) &&
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
      parts: this.parts,
      hasPasswordField: this.hasPasswordField,
      words: clean(this.words, wordsKept) ?? "",
      isWhole: this.isWhole,
    };
  }

  private open(name: string, attributes: Record<string, string>): void {
    if (++this.depth > deepest) this.isTooDeep = true;
    if (unseen.has(name)) this.unseenDepth++;
    this.words += " ";
    for (const part of [attributes["id"], name === "a" ? attributes["name"] : undefined])
      if (part !== undefined && this.wanted.has(part)) this.parts.add(part);
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

  private text(text: string): void {
    if (this.inside === "title") this.title += text;
    else if (this.unseenDepth === 0) {
      if (this.inside === "heading") this.heading += text;
      if (this.words.length < wordsKept) this.words += text;
    }
  }

  private close(name: string): void {
    this.depth--;
    this.words += " ";
    if (unseen.has(name)) this.unseenDepth = Math.max(0, this.unseenDepth - 1);
    if ((this.inside === "title" && name === "title") || (this.inside === "heading" && /^h[12]$/.test(name)))
      this.inside = null;
  }
}
