import type { Node } from "prosemirror-model";
import { assertDestination, readHref, writeDestination } from "../../destination/destination.ts";
import { DestinationError } from "../../destination/errors.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { topOfBook } from "../../manuscript/book-index.ts";
import { linkUses, type LinkUse } from "../../manuscript/links.ts";
import { fileNameOf } from "../file-name.ts";
import type { LeftOut } from "../left-out.ts";
import type { FileLink } from "./file-links.ts";
import { lettersAtPlaces } from "./letters-at-places.ts";

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
  /** Every link, in the order of the file; extra ones behind them. */
  links: ArrivedLink[];
  /** What else could not be taken over as it was. */
  told: LeftOut[];
}

/** What a proof is made with. */
export interface ArrivedBook {
  chapters: readonly Node[];
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

interface BookLink {
  use: LinkUse;
  letters: string;
  leadsTo: string;
  /** The letters where it leads; null for one that leads out of the book, or nowhere. */
  landing: string | null;
}

interface Asked {
  link: FileLink;
  letters: string;
  leadsTo: string;
  /** Why the book cannot hold where it leads; null where it can. */
  refusal: string | null;
}

const inner = "#";

class Pairing {
  private readonly asked: Asked[];
  private readonly given: BookLink[];
  private readonly pairs = new Map<Asked, BookLink>();
  private readonly reasons: LeftOut[];
  private readonly fileNames: ReadonlySet<string>;

  constructor(
    fileLinks: readonly FileLink[],
    private readonly book: ArrivedBook,
  ) {
    this.fileNames = new Set([...book.companions.values()].map((name) => name.split("/").at(-1)!));
    this.reasons = book.leftOut.filter(({ href }) => href !== undefined);
    this.asked = fileLinks.map((link) => ({
      link,
      letters: bare(link.words),
      ...this.destinationOf(link.href),
    }));
    const landings = lettersAtPlaces(book.chapters);
    this.given = book.chapters.flatMap((doc) =>
      linkUses(doc).map((use) => ({
        use,
        letters: bare(use.text),
        leadsTo: this.written(use.destination),
        landing: use.destination.kind === "place" ? (landings.get(use.destination.target) ?? null) : null,
      })),
    );
  }

  links(): ArrivedLink[] {
    // The surest first: what is alike in all, then what is in less.
    const landingOf = (text: string | null): string => text?.slice(0, 12) ?? "";
    this.pairBy(
      ({ letters, leadsTo, link }) => `${letters}|${leadsTo}|${landingOf(link.landing)}`,
      ({ letters, leadsTo, landing }) => `${letters}|${leadsTo}|${landingOf(landing)}`,
    );
    this.pairBy(
      ({ letters, leadsTo }) => `${letters}|${leadsTo}`,
      ({ letters, leadsTo }) => `${letters}|${leadsTo}`,
    );
    this.pairBy(
      ({ leadsTo, refusal }) => (refusal !== null || leadsTo === inner ? null : leadsTo),
      ({ leadsTo }) => (leadsTo === inner ? null : leadsTo),
    );
    this.pairBy(
      ({ letters, refusal }) => (letters === "" || refusal !== null ? null : letters),
      ({ letters }) => letters || null,
    );
    const paired = new Set(this.pairs.values());
    const extra = this.given.filter((one) => !paired.has(one));
    return [...this.asked.map((one) => this.judge(one)), ...extra.map(extraLink)];
  }

  private pairBy(
    keyOfFile: (one: Asked) => string | null,
    keyOfBook: (one: BookLink) => string | null,
  ): void {
    const paired = new Set(this.pairs.values());
    const waiting = new Map<string, BookLink[]>();
    for (const one of this.given) {
      const key = paired.has(one) ? null : keyOfBook(one);
      if (key === null) continue;
      const others = waiting.get(key);
      if (others) others.push(one);
      else waiting.set(key, [one]);
    }
    for (const all of waiting.values()) all.reverse();
    for (const one of this.asked) {
      const key = this.pairs.has(one) ? null : keyOfFile(one);
      const found = key === null ? undefined : waiting.get(key)?.pop();
      if (found) this.pairs.set(one, found);
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
      if (one.letters === "")
        return told("left-out", "Links without words", "A link needs words or a picture to stand on.");
      const reason = this.reasons.find((item) => item.href === href);
      return reason
        ? told("left-out", reason.sort, reason.why)
        : told("lost", "Links that did not arrive", "The book has no such link, and nothing says why.");
    }
    const { use } = found;
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
      if (isDead || one.link.landing === null || !(isTop || isSamePlace(one.link.landing, found.landing!)))
        return told("changed", "Links that land elsewhere", "In the book other words stand where it leads.");
    }
    // A picture without words is called by its file in the book.
    const isUnnamed = one.link.showsPicture && found.letters.includes(one.letters);
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
    const name = fileNameOf(href);
    if (name !== "" && this.fileNames.has(name)) return { leadsTo: `file ${name}`, refusal: null };
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
    const name =
      destination.kind === "file" && "file" in destination
        ? this.book.companions.get(destination.file)
        : undefined;
    return name === undefined ? writeDestination(destination) : `file ${name.split("/").at(-1)!}`;
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

function isSamePlace(asked: string, given: string): boolean {
  // What stands between may be told by one reader only, as words in a picture.
  const shorter = Math.min(asked.length, given.length, 8);
  return asked.slice(0, shorter) === given.slice(0, shorter);
}

/** Words apart from their blanks, which each reader sets in its own way. */
function bare(words: string): string {
  return words.replace(/[\s\u00a0\u00ad\u200b]+/gu, "");
}

function folded(words: string): string {
  return words.replace(/\s+/g, " ").trim();
}
