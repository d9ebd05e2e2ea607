import { percentDecoded } from "../../destination/percent-decoded.ts";

/** A link as it stands in a manuscript's file. */
export interface FileLink {
  /** Its words, and the text alternatives of its pictures. */
  words: string;
  showsPicture: boolean;
  href: string;
  /** What the file says of it; null where it says nothing. */
  title: string | null;
  /** Its place in the file, as “paragraph 12”; null where the second reader cannot tell. */
  where: string | null;
  /** How many letters of the file stand before it. */
  at: number;
  /** How many stand before the place where it leads; null for a link out of the file, or to a place that is not in it. */
  to: number | null;
  /** The letters that stand where it leads; null for a link out of the file, or to a place that is not in it. */
  landing: string | null;
  /** What it stands in where that is no part of the text, as “the head or foot of pages”; null in the text. */
  apart: string | null;
  /** Whether a press leads there; false for what follows a place and is no link. */
  isJump: boolean;
}

/** How many letters tell one place from another. */
export const landingLetters = 24;

/** Only letters are compared: numbers, blanks and signs are made by whoever shows a text. */
export function lettersOf(text: string): string {
  // What Unicode calls letters takes long to look up, and most words need none of it.
  if (!/[^\t\n\r -~]/.test(text)) return text.replace(/[^A-Za-z]+/g, "").toLowerCase();
  return text.replace(/[^\p{L}]+/gu, "").toLowerCase();
}

/** Whether a link has a number or a sign for its words, as notes and the ways back from them have. */
export function isSign({ words, showsPicture }: FileLink): boolean {
  return !showsPicture && (lettersOf(words) === "" || /^\W?[a-z]\W?$/i.test(words.trim()));
}

/** So many letters of a listing are some ten lines of it. */
const inSight = 300;

type OpenLink = Omit<FileLink, "to" | "landing">;

/** Takes down the links of a file while somebody reads it from its beginning to its end. */
export class FileLinks {
  private readonly found: OpenLink[] = [];
  private readonly open: OpenLink[] = [];
  private readonly places = new Map<string, number>();
  private readonly oldNames = new Map<string, number>();
  private letters = "";
  /** Where the heading begins that is read; null outside of headings. */
  private headingAt: number | null = null;
  /** Where the listing begins that is read; null outside of listings. */
  private listingAt: number | null = null;
  /** Where in the file the reading is, and in what that is no part of the text. */
  where: string | null = null;
  apart: string | null = null;

  /** Words; they are those of the innermost link that is open. */
  text(words: string): void {
    const link = this.open.at(-1);
    if (link) link.words += words;
    this.letters += lettersOf(words);
  }

  picture(alternative: string): void {
    const link = this.open.at(-1);
    if (!link) return;
    link.words += alternative;
    link.showsPicture = true;
  }

  /** A place that begins here, under its name; one in a heading is that heading. The first that has a name is meant. */
  place(name: string | undefined): void {
    this.placeIn(this.places, name);
  }

  /** The old name of an anchor (WHATWG HTML, 7.4.6.4), which is meant where nothing has it as its id. */
  oldName(name: string | undefined): void {
    this.placeIn(this.oldNames, name);
  }

  private placeIn(places: Map<string, number>, name: string | undefined): void {
    for (const one of name ? [name, percentDecoded(name)] : [])
      if (!places.has(one)) places.set(one, this.headingAt ?? this.inListing() ?? this.letters.length);
  }

  get isInHeading(): boolean {
    return this.headingAt !== null;
  }

  /** What is read in between are the words of a heading. */
  beginHeading(): void {
    this.headingAt = this.letters.length;
  }

  endHeading(): void {
    this.headingAt = null;
  }

  /** What is read in between are the lines of a listing, before which its places stand in a book. */
  beginListing(): void {
    this.listingAt = this.letters.length;
  }

  endListing(): void {
    this.listingAt = null;
  }

  /** Where the listing begins, if that is in sight of who looks for a place here. */
  private inListing(): number | null {
    const isNear = this.listingAt !== null && this.letters.length - this.listingAt < inSight;
    return isNear ? this.listingAt : null;
  }

  begin(href: string, title: string | null, isJump = true): void {
    const { where, apart } = this;
    const at = this.letters.length;
    const link = { words: "", href, title: title || null, where, apart, isJump, showsPicture: false, at };
    this.found.push(link);
    this.open.push(link);
  }

  end(): void {
    this.open.pop();
  }

  /** Whether the innermost link that is open leads there. */
  leads(href: string): boolean {
    return this.open.at(-1)?.href === href;
  }

  /**
   * All links that were found, in their order.
   * @param nameOf the names by which the place that a fragment names may be known, the likeliest first
   */
  all(nameOf: (fragment: string) => string[]): FileLink[] {
    return this.found.map((link) => {
      const to = this.placeOf(link.href, nameOf);
      const landing = to === null ? null : this.letters.slice(to, to + landingLetters);
      return { ...link, to, landing };
    });
  }

  private placeOf(href: string, nameOf: (fragment: string) => string[]): number | null {
    if (!href.startsWith("#")) return null;
    const at = nameOf(href.slice(1)).flatMap(
      (name) => this.places.get(name) ?? this.oldNames.get(name) ?? [],
    )[0];
    // The top of a page, in whatever letters, where nothing in it is called so (WHATWG HTML, 7.4.6.4).
    return at ?? (/^#(top)?$/i.test(href) ? 0 : null);
  }
}
