import { behindPath } from "../../destination/kinds/file.ts";
import type { Node } from "prosemirror-model";
import { assertDestination, readHref, writeDestination } from "../../destination/destination.ts";
import { DestinationError } from "../../destination/errors.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { topOfBook, type BookIndex } from "../../manuscript/book-index.ts";
import { FileNames, fileNameOf } from "../file-name.ts";
import type { LeftOut } from "../left-out.ts";
import { isSign, lettersOf, type FileLink } from "./file-links.ts";
import { headingOf, isCaption, isSamePlace, isWithin, landingsOf } from "./landings.ts";
import { pageNumbers } from "./page-numbers.ts";
import { waysBack } from "./ways-back.ts";
import { lettersAtPlaces } from "./letters-at-places.ts";
import { linksOfBook, type BookLink } from "./links-of-book.ts";

/** What became of a link of the file: it is in the book as it was, not quite as it was, out of it for a reason, or gone. */
export type ArrivalVerdict = "intact" | "changed" | "left-out" | "lost" | "extra";

/** What the author can do about links of a sort. */
export type ArrivalMend = "base-address" | "places";

/** A link of the file, or of the book alone where it is extra, with what became of it. */
export interface ArrivedLink {
  verdict: ArrivalVerdict;
  /** What all links of its sort are called; empty for those that are intact. */
  sort: string;
  words: string;
  /** Where it leads, as the file says it; as the book does for one that is extra. */
  href: string;
  /** Its place in the file; null where that cannot be told. */
  where: string | null;
  /** What became of it, in a sentence; empty for one that is intact. */
  reason: string;
  mend: ArrivalMend | null;
}

/** A file that was brought, compared with the book made of it. */
export interface ArrivalProof {
  counts: Readonly<Record<ArrivalVerdict, number>>;
  /** Every link, in the order of the file; behind them what only follows places there, and extra ones. */
  links: ArrivedLink[];
  /** What else could not be taken over as it was. */
  told: LeftOut[];
}

/** What a proof is made with. */
export interface ArrivedBook {
  chapters: readonly Node[];
  /** The ids of titles that no file has, of chapters that one was parted into. */
  ownTitles: ReadonlySet<string>;
  index: BookIndex;
  leftOut: readonly LeftOut[];
  baseAddress: string | null;
  /** The names of the files that came along, by their ids. */
  companions: ReadonlyMap<string, string>;
}

/**
 * Pairs each link that a second reader found in a file with one of the book that was made of it, by its words, where it
 * leads, and, for places of the file, the letters that stand there.
 */
export function proveArrival(fileLinks: readonly FileLink[], book: ArrivedBook): ArrivalProof {
  const pairing = new Pairing(fileLinks, book);
  const links = pairing.links();
  const counts = { intact: 0, changed: 0, "left-out": 0, lost: 0, extra: 0 };
  for (const { verdict } of links) counts[verdict] += 1;
  return { counts, links, told: book.leftOut.filter(({ href }) => href === undefined) };
}

interface Given extends BookLink {
  letters: string;
  leadsTo: string;
  /** The letters where it leads; null for one that leads out of the book, or nowhere. */
  landing: string | null;
  isCaption: boolean;
  /** The letters of the heading to which it leads; empty for any other. */
  heading: string;
}

interface Asked {
  link: FileLink;
  letters: string;
  leadsTo: string;
  /** Why the book cannot hold where it leads; null where it can. */
  refusal: string | null;
}

const inner = "#";
/** So many letters tell one note from another. */
const signLetters = 8;

const linkOf = ({ link }: Asked): FileLink => link;

class Pairing {
  private readonly asked: Asked[];
  private readonly given: Given[];
  private readonly pairs = new Map<Asked, Given>();
  private readonly hasNotes: boolean;
  private ways: ReadonlySet<FileLink> = new Set();
  private numbers: ReadonlySet<FileLink> = new Set();
  private readonly reasons: LeftOut[];
  private readonly fileNames: FileNames;

  constructor(
    fileLinks: readonly FileLink[],
    private readonly book: ArrivedBook,
  ) {
    this.fileNames = new FileNames([...book.companions.values()].map((name) => name.split("/").at(-1)!));
    this.reasons = book.leftOut.filter(({ href }) => href !== undefined);
    // Who leads there is paired before who only follows the place.
    const inTurn = [
      ...fileLinks.filter(({ isJump }) => isJump),
      ...fileLinks.filter(({ isJump }) => !isJump),
    ];
    this.asked = inTurn.map((link) => ({
      link,
      letters: bare(link.words),
      ...this.destinationOf(link.href),
    }));
    const landings = lettersAtPlaces(book.chapters, book.index, book.ownTitles);
    const inBook = linksOfBook(book.chapters, book.index);
    this.hasNotes = inBook.some(({ made }) => made === "note");
    // What an author linked is looked for first, then pages of it, and then what lists repeat of it.
    const rank = ({ made }: BookLink): number => (made === "signpost" ? 2 : made === "page" ? 1 : 0);
    const ordered = [...inBook].sort((a, b) => rank(a) - rank(b));
    this.given = ordered.map(({ use, made }) => ({
      use,
      made,
      letters: bare(use.text),
      leadsTo: this.written(use.destination),
      isCaption: isCaption(book.index, use.destination),
      heading: headingOf(book.index, use.destination),
      landing: use.destination.kind === "place" ? (landings.get(use.destination.target) ?? null) : null,
    }));
  }

  links(): ArrivedLink[] {
    // The surest first: what is alike in all, then what is in less.
    this.pairBy(
      ({ letters, leadsTo, link: { landing, title } }) =>
        `${letters}|${leadsTo}|${landing?.slice(0, 12) ?? ""}|${title?.trim() ?? ""}`,
      ({ letters, leadsTo, landing, use: { description } }) =>
        `${letters}|${leadsTo}|${landing?.slice(0, 12) ?? ""}|${description?.trim() ?? ""}`,
    );
    const landingOf = (text: string | null): string => text?.slice(0, 8) ?? "";
    this.pairBy(
      ({ letters, leadsTo, link }) => `${letters}|${leadsTo}|${landingOf(link.landing)}`,
      ({ letters, leadsTo, landing }) => `${letters}|${leadsTo}|${landingOf(landing)}`,
    );
    // Entries of lists have numbers around their words.
    this.pairBy(
      ({ leadsTo, link }) => (leadsTo === inner ? lettersOf(link.words) || null : null),
      ({ made, use }) => (made === "signpost" ? lettersOf(use.text) || null : null),
    );
    // What follows its target may write it in other capitals.
    const inLetters = (words: string, landing: string | null): string | null =>
      lettersOf(words) && landing ? `${lettersOf(words)}|${landingOf(landing)}` : null;
    this.pairBy(
      ({ link }) => inLetters(link.words, link.landing),
      ({ use, landing, made }) => (made === null ? inLetters(use.text, landing) : null),
    );
    // The number of a note is anybody's: notes are told by their words.
    this.pairBy(
      ({ letters, leadsTo }) => `${letters}|${leadsTo}`,
      ({ letters, leadsTo, made }) => (made === "note" ? null : `${letters}|${leadsTo}`),
    );
    this.pairBy(
      ({ leadsTo, refusal }) => (refusal !== null || leadsTo === inner ? null : leadsTo),
      ({ leadsTo }) => (leadsTo === inner ? null : leadsTo),
    );
    this.pairBy(
      ({ letters, refusal }) => (letters === "" || refusal !== null ? null : letters),
      ({ letters, made }) => (made === "note" ? null : letters || null),
    );
    // What follows its target may say something else by now; a number is that of a page.
    this.pairBy(
      ({ leadsTo, link }) => (leadsTo === inner && isSign(link) ? landingOf(link.landing) || null : null),
      ({ made, landing }) => (made === "page" ? landingOf(landing) : null),
    );
    this.pairBy(
      ({ leadsTo, link }) => (leadsTo === inner && link.landing !== null ? landingOf(link.landing) : null),
      ({ made, landing }) => (made === "signpost" || made === "page" ? landingOf(landing) : null),
    );
    // A note’s number is made by the book, and so is the way back.
    this.pairNotes();
    this.pairBy(
      ({ letters, leadsTo, link }) => (leadsTo === inner && isSign(link) ? letters || null : null),
      ({ letters, made }) => (made === "note" ? letters || null : null),
    );
    const made = (what: "note" | "signpost"): FileLink[] =>
      this.asked.filter((one) => this.pairs.get(one)?.made === what).map(linkOf);
    this.ways = waysBack(this.asked.map(linkOf), made("note"));
    this.numbers = pageNumbers(this.asked.map(linkOf), made("signpost"));
    const paired = new Set(this.pairs.values());
    const extra = this.given.filter((one) => !paired.has(one) && (one.made === null || one.made === "page"));
    // What follows a place without being a link is one only in the book, if at all.
    const links = this.asked.filter((one) => one.link.isJump || this.pairs.has(one));
    return [...links.map((one) => this.judge(one)), ...extra.map(extraLink)];
  }

  /** What is not paired yet, by what it is looked for, the first of each at its end. */
  private waitingBy(keyOf: (one: Given) => string | null): Map<string, Given[]> {
    const paired = new Set(this.pairs.values());
    const waiting = new Map<string, Given[]>();
    for (const one of this.given) {
      const key = paired.has(one) ? null : keyOf(one);
      if (key === null) continue;
      const others = waiting.get(key);
      if (others) others.push(one);
      else waiting.set(key, [one]);
    }
    for (const all of waiting.values()) all.reverse();
    return waiting;
  }

  private pairBy(keyOfFile: (one: Asked) => string | null, keyOfBook: (one: Given) => string | null): void {
    const waiting = this.waitingBy(keyOfBook);
    for (const one of this.asked) {
      const key = this.pairs.has(one) ? null : keyOfFile(one);
      const found = key === null ? undefined : waiting.get(key)?.pop();
      if (found) this.pairs.set(one, found);
    }
  }

  /** Signs of notes, by the words of the notes, which may be few. */
  private pairNotes(): void {
    const waiting = this.waitingBy(({ made, landing }) =>
      made === "note" ? (landing ?? "").slice(0, signLetters) : null,
    );
    for (const one of this.asked) {
      if (this.pairs.has(one) || !isSign(one.link)) continue;
      for (const landing of landingsOf(one.link))
        // A note may be shorter than what tells it from others; the longest that fits is meant.
        for (let length = signLetters; length >= 0 && !this.pairs.has(one); length--) {
          const found = waiting.get(landing.slice(0, length))?.pop();
          if (found) this.pairs.set(one, found);
        }
    }
  }

  private judge(one: Asked): ArrivedLink {
    const { words, href, where } = one.link;
    const found = this.pairs.get(one);
    const told = (
      verdict: ArrivalVerdict,
      sort: string,
      reason: string,
      mend: ArrivalMend | null = null,
    ) => ({
      verdict,
      sort,
      words: folded(words),
      href,
      where: where ?? this.whereOf(href),
      reason,
      mend,
    });
    if (!found) {
      if (one.link.apart) {
        const reason = `It stands in ${one.link.apart}, which has no place in a book.`;
        return told("left-out", "Links outside the text", reason);
      }
      if (one.refusal)
        return told("left-out", "Links that a book cannot hold", `${one.refusal} Its words are kept.`);
      if (this.numbers.has(one.link))
        return told(
          "left-out",
          "Page numbers in lists",
          "The list follows its headings; exports number pages.",
        );
      const isWay = this.ways.has(one.link) || (one.letters !== "" && isSign(one.link));
      if (one.leadsTo === inner && this.hasNotes && isWay)
        return told("left-out", "Ways back from notes", "A book leads back from its notes by itself.");
      if (one.letters === "")
        return told("left-out", "Links without words", "A link needs words or a picture to stand on.");
      const reason = this.reasons.find((item) => item.href === href);
      return reason
        ? told("left-out", reason.sort, reason.why)
        : told("lost", "Links that did not arrive", "The book has no such link, and nothing says why.");
    }
    const { use, made } = found;
    if (!one.link.isJump && made !== "note")
      return told(
        "changed",
        "References that lead to their places now",
        "In the file it follows its place, and a press leads nowhere; in the book it leads there.",
      );
    if (made === "note") return told("intact", "", "");
    if (made === "signpost")
      return lettersOf(words) === lettersOf(use.text)
        ? told("intact", "", "")
        : told(
            "changed",
            "Lists that follow the headings now",
            `It is an entry of a signpost list now, as “${folded(use.text)}”.`,
          );
    if (one.leadsTo !== found.leadsTo)
      return told(
        "changed",
        "Links that lead elsewhere",
        `In the book it leads to ${writeDestination(use.destination)}.`,
      );
    if (one.leadsTo === inner) {
      const { destination } = use;
      const isDead = found.landing === null;
      const isTop = destination.kind === "place" && destination.target === topOfBook;
      if (isDead && one.link.landing === null)
        return told(
          "changed",
          "Links to places that the file does not have",
          "It is kept, and leads nowhere until it is given a place.",
          "places",
        );
      const given = found.landing ?? "";
      const isThere = (asked: string): boolean =>
        isSamePlace(asked, given) ||
        // The label of a caption is the book's own.
        (found.isCaption && asked.includes(given.slice(0, 8))) ||
        // A place anywhere in a heading is that heading.
        isWithin(found.heading, asked);
      if (isDead || one.link.landing === null || !(isTop || landingsOf(one.link).some(isThere)))
        return told("changed", "Links that land elsewhere", "In the book other words stand where it leads.");
    }
    // A picture without words is called by its file in the book.
    const isUnnamed = one.link.showsPicture && found.letters.includes(one.letters);
    if (made === "page" && one.letters !== found.letters)
      return told("changed", "Page numbers that follow their places now", "It is a cross-reference now.");
    if (one.letters !== found.letters && !isUnnamed)
      return told("changed", "Links with other words", `In the book its words are “${folded(use.text)}”.`);
    if ((one.link.title ?? "").trim() !== (use.description ?? "").trim())
      return told(
        "changed",
        "Links with another description",
        `In the book it is described as “${use.description ?? ""}”.`,
      );
    if (use.destination.kind === "file" && "path" in use.destination)
      return told(
        "changed",
        "Links to files that were not brought along",
        "It is kept, and leads nowhere until the file is brought, or it starts from a web address.",
        "base-address",
      );
    return told("intact", "", "");
  }

  private whereOf(href: string): string | null {
    return this.reasons.find((item) => item.href === href)?.where ?? null;
  }

  private destinationOf(href: string): Pick<Asked, "leadsTo" | "refusal"> {
    const name = this.fileNames.meant(fileNameOf(href));
    if (name !== null) return { leadsTo: `file ${name}${/#[^\s#]+$/.exec(href)?.[0] ?? ""}`, refusal: null };
    try {
      const destination = readHref(href, this.book.baseAddress);
      if (destination.kind !== "place") assertDestination(destination);
      return { leadsTo: this.written(destination), refusal: null };
    } catch (error) {
      if (!(error instanceof DestinationError)) throw error;
      return { leadsTo: href, refusal: error.message };
    }
  }

  /** Where a link leads, so that file and book say it alike: places are compared by what stands there. */
  private written(destination: Destination): string {
    if (destination.kind === "place") return inner;
    // A file that came along is known by its name, whatever folder it was in.
    if (destination.kind !== "file" || !("file" in destination)) return writeDestination(destination);
    const name = this.book.companions.get(destination.file);
    return name === undefined
      ? writeDestination(destination)
      : `file ${name.split("/").at(-1)!}${behindPath(destination.at)}`;
  }
}

function extraLink({ use }: BookLink): ArrivedLink {
  return {
    verdict: "extra",
    sort: "Links that the file does not have",
    words: folded(use.text),
    href: writeDestination(use.destination),
    where: null,
    reason: "The book has it; the second reader found none like it in the file.",
    mend: null,
  };
}

/** Words apart from their blanks, which each reader sets in its own way. */
function bare(words: string): string {
  return words.replace(/[\s\u00a0\u00ad\u200b]+/gu, "");
}

function folded(words: string): string {
  return words.replace(/\s+/g, " ").trim();
}
