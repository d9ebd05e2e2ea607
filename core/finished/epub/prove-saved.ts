import { nameDestination, writeDestination } from "../../destination/destination.ts";
import type { DestinationNames } from "../../destination/kinds/kind.ts";
import { kindOf } from "../../destination/kinds/kinds.ts";
import type { LinkProof, LinkVerdict, ProofRow } from "../../proof/compare.ts";
import type { Fault } from "../../proof/exported-link.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { isTelling } from "../../proof/landing.ts";
import { whereInPage } from "../../proof/where-in-page.ts";
import { unpacked, writtenNames } from "../../import/containers.ts";
import { decodePage } from "../../import/text-encoding.ts";
import { linkAsAsked } from "../link-as-asked.ts";
import { sameAddress } from "../same-address.ts";
import type { TellPage } from "../tell-page.ts";
import { asAsked } from "./asked-of-page.ts";
import { newFragment, placesOfEpub, type EpubLink, type EpubPage, type PlaceInEpub } from "./epub-page.ts";
import {
  besidesLinks,
  linksIn,
  pageEvents,
  wordsAtIds,
  type PageEvent,
  type ReadLink,
} from "./page-events.ts";

/**
 * Compares a saved e-book, as parsers read it that had no part in writing it, with the links that were asked for and with
 * the file that came: every link is there, says what it should and leads where it should; no other is; and all else of
 * every page, and every other file of the container, is as it was.
 * @param pages all pages, as they were asked to be
 */
export function proveSavedEpub(
  came: Uint8Array,
  saved: Uint8Array,
  pages: readonly EpubPage[],
  names: DestinationNames,
  tell: TellPage = () => undefined,
): LinkProof {
  const faults: Fault[] = [];
  const [before, after] = [unpacked(came), unpacked(saved)];
  const paths = new Set(pages.map(({ path }) => path));
  const [namesBefore, namesAfter] = [came, saved].map((bytes) => writtenNames(bytes).join("\n"));
  if (namesBefore !== namesAfter)
    faults.push({ where: "The file", what: "Its list of files is not as it was." });
  for (const [name, bytes] of Object.entries(before))
    if (!paths.has(name) && !isSame(bytes, after[name]))
      faults.push({ where: name, what: "It is not, byte for byte, as it was." });
  const proving = new Proving(after, pages, names);
  for (const [i, page] of pages.entries()) {
    proving.page(page, before[page.path]!, faults);
    tell(i + 1, pages.length);
  }
  const { rows, extra } = proving;
  const intact = rows.filter(({ verdict }) => verdict === "intact").length;
  return {
    complete: intact === rows.length && extra.length === 0 && faults.length === 0,
    intact,
    total: rows.length,
    made: { intact: 0, total: 0, rows: [] },
    pages: null,
    rows,
    extra,
    faults,
    apparatus: pages.reduce((count, { untouched }) => count + untouched.length, 0),
  };
}

/** What a page says of how it is written, and of its kind (XML 1.0, 2.8). */
function prologOf(page: Uint8Array): string {
  const text = textOf(page);
  return text.slice(0, text.search(/<[^?!]/));
}

function isSame(a: Uint8Array, b: Uint8Array | undefined): boolean {
  return a.length === b?.length && a.every((byte, i) => byte === b[i]);
}

class Proving {
  readonly rows: ProofRow[] = [];
  readonly extra: LinkProof["extra"] = [];
  private readonly places: ReadonlyMap<string, PlaceInEpub>;
  /** The places that get a name, since links lead to them. */
  private readonly named: readonly PlaceInEpub[];
  /** What is read of each page of the saved file. */
  private readonly read = new Map<string, PageEvent[]>();
  private readonly ids = new Map<string, ReadonlySet<string>>();

  constructor(
    private readonly files: Readonly<Record<string, Uint8Array>>,
    pages: readonly EpubPage[],
    private readonly names: DestinationNames,
  ) {
    this.places = placesOfEpub(pages);
    const targets = pages.flatMap(({ links }) =>
      links.map(({ destination }) => kindOf(destination).outside(destination)),
    );
    const found = targets.map((outside) =>
      outside.kind === "place" ? this.places.get(outside.target) : undefined,
    );
    this.named = [...new Set(found)].flatMap((one) => (one?.place?.fragment === null ? [one] : []));
  }

  page(page: EpubPage, came: Uint8Array, faults: Fault[]): void {
    const saved = this.files[page.path];
    if (page.stays !== null || (page.links.length === 0 && isSame(came, saved))) {
      if (!isSame(came, saved))
        faults.push({ where: page.path, what: "It is not, byte for byte, as it was." });
      return;
    }
    let read: ReadLink[];
    let was: ReadLink[];
    try {
      const [before, after] = [pageEvents(textOf(came)), this.eventsOf(page.path)];
      const named = this.named.filter((one) => one.page === page).map(({ place }) => place!);
      const difference = firstDifference(besidesLinks(asAsked(before, { page, named })), besidesLinks(after));
      if (difference !== null)
        faults.push({
          where: page.path,
          what: `Besides its links something is not as it was: ${difference}`,
        });
      if (prologOf(came) !== prologOf(saved!))
        faults.push({ where: page.path, what: "What stands before its first element is not as it was." });
      [was, read] = [linksIn(before), linksIn(after)];
    } catch (error) {
      faults.push({ where: page.path, what: `It cannot be read: ${(error as Error).message}` });
      return;
    }
    this.links(page, read, was);
  }

  /** Pairs the links of a page, which both have in the order of its text. */
  private links(page: EpubPage, read: readonly ReadLink[], was: readonly ReadLink[]): void {
    const asked = [...page.links, ...page.untouched].sort(
      (a, b) => a.on.from - b.on.from || a.on.element - b.on.element,
    );
    const free = read.map((link, at) => ({ link, at }));
    const pairs = new Map<(typeof asked)[number], (typeof free)[number]>();
    const pair = (isIt: (one: (typeof asked)[number], link: ReadLink) => boolean): void => {
      let from = 0;
      for (const one of asked) {
        if (pairs.has(one)) continue;
        const found = free.findIndex(({ link }, i) => i >= from && isIt(one, link));
        if (found === -1) continue;
        pairs.set(one, free[found]!);
        free.splice(found, 1);
        from = found;
      }
    };
    pair((one, link) => this.verdictOf(page, one, link, was).verdict === "intact");
    pair((one, link) => one.words === link.words);
    pair((one, link) => "destination" in one && this.leadsRight(page, one, link, was));
    for (const one of asked) {
      const found = pairs.get(one);
      if (!("destination" in one)) {
        if (!found)
          this.extra.push({
            text: one.words,
            destination: one.href,
            where: `${page.path}: it was to stay, and is gone`,
          });
        continue;
      }
      const judged = found
        ? this.verdictOf(page, one, found.link, was)
        : { verdict: "missing" as const, note: "The file has no such link." };
      const where = found ? [whereInPage(page.path, found.link.id, found.at + 1)] : [];
      this.rows.push({ link: this.asked(page, one), found: where, ...judged });
    }
    for (const { link, at } of free)
      this.extra.push({
        text: link.words,
        destination: link.href,
        where: whereInPage(page.path, link.id, at + 1),
      });
  }

  private verdictOf(
    page: EpubPage,
    one: EpubLink | EpubPage["untouched"][number],
    link: ReadLink,
    was: readonly ReadLink[],
  ): { verdict: LinkVerdict; note: string | null } {
    const says = (verdict: LinkVerdict, note: string): { verdict: LinkVerdict; note: string } => ({
      verdict,
      note,
    });
    if (!sameWords(one.words, link.words)) return says("other-words", `It says “${link.words}”.`);
    if (!("destination" in one)) {
      const isSame = was[one.from]?.href === link.href;
      return isSame
        ? { verdict: "intact", note: null }
        : says("other-destination", `It leads to ${link.href}.`);
    }
    if (!this.leadsRight(page, one, link, was)) return says("other-destination", `It leads to ${link.href}.`);
    if ((link.title ?? null) !== (one.description?.trim() || null) && !isLong(one.description))
      return says("other-description", link.title === null ? "It says nothing." : `It says “${link.title}”.`);
    return { verdict: "intact", note: null };
  }

  private leadsRight(page: EpubPage, one: EpubLink, { href }: ReadLink, was: readonly ReadLink[]): boolean {
    const outside = kindOf(one.destination).outside(one.destination);
    const before = one.from === null ? null : (was[one.from]?.href ?? null);
    if (outside.kind === "address") return sameAddress(href, outside.address);
    if (outside.kind !== "place") return href === before;
    const wanted = this.places.get(outside.target);
    // What led nowhere in the file that came still does, unless it was mended.
    if (!wanted) return href === before;
    const url = new URL(href, `epub:///${encodeURI(page.path)}`);
    const [path, fragment] = [percentDecoded(url.pathname.slice(1)), percentDecoded(url.hash.slice(1))];
    if (url.protocol !== "epub:" || path !== wanted.page.path) return false;
    if (wanted.place === null) return fragment === "" || this.namesOfTop(path).includes(fragment);
    const name = wanted.place.fragment ?? newFragment(wanted.place, wanted.page);
    return fragment === name && this.idsOf(wanted.page).has(name);
  }

  private eventsOf(path: string): PageEvent[] {
    let events = this.read.get(path);
    if (!events) {
      events = pageEvents(textOf(this.files[path]!));
      this.read.set(path, events);
    }
    return events;
  }

  /** By what links lead to the top of a page: the ids of its outermost elements. */
  private namesOfTop(path: string): string[] {
    const text = decodePage(this.files[path]!);
    return [...text.matchAll(/<(?:\w+:)?(?:html|body)\b[^>]*?\sid\s*=\s*["']([^"']+)/gi)].map(
      ([, id]) => id!,
    );
  }

  /** The ids of a page; of one that cannot be parsed those that its text says. */
  private idsOf({ path, stays }: EpubPage): ReadonlySet<string> {
    let ids = this.ids.get(path);
    if (!ids) {
      const said = (): string[] =>
        [...decodePage(this.files[path]!).matchAll(/\s(?:id|name)\s*=\s*["']([^"']+)/gi)].map(
          ([, id]) => id!,
        );
      ids = new Set(stays === null ? wordsAtIds(this.eventsOf(path)).keys() : said());
      this.ids.set(path, ids);
    }
    return ids;
  }

  private asked(page: EpubPage, link: EpubLink): ProofRow["link"] {
    const outside = kindOf(link.destination).outside(link.destination);
    const place = outside.kind === "place" ? this.places.get(outside.target) : undefined;
    const words = place?.place?.name ?? "";
    return linkAsAsked(link, {
      chapter: page.title,
      isArea: link.on.kind === "area",
      destination: writeDestination(link.destination),
      name: nameDestination(link.destination, this.names),
      landing: isTelling(words) && !words.startsWith("#") ? words : null,
    });
  }
}

const longest = 2_000;
const isLong = (words: string | null): boolean => (words?.length ?? 0) >= longest;

function sameWords(asked: string, read: string): boolean {
  const folded = asked.replace(/\s+/g, " ").trim();
  return folded === read || (isLong(asked) && read.startsWith(folded));
}

function textOf(bytes: Uint8Array): string {
  return new TextDecoder("utf-8", { ignoreBOM: true }).decode(bytes);
}

/** The first of two lists' lines that are not the same; null where all are. */
function firstDifference(before: readonly string[], after: readonly string[]): string | null {
  const at = Array.from({ length: Math.max(before.length, after.length) }).findIndex(
    (_, i) => before[i] !== after[i],
  );
  if (at === -1) return null;
  const told = (line: string | undefined): string => (line === undefined ? "nothing" : line.slice(0, 120));
  return `${told(before[at])} was there, ${told(after[at])} is.`;
}
