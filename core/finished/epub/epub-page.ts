import { assertDestination } from "../../destination/destination.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { FinishedError } from "../errors.ts";

/** What a link of a page of an e-book lies on. Areas of pictures it has from the file alone. */
export interface LinkGround {
  kind: "words" | "picture" | "area";
  /** From which letter of the page’s text to which; the same where it has none. */
  from: number;
  to: number;
  /** Which element of the page’s body it is, from 0; of a new one the picture, or the element in which its words begin. */
  element: number;
}

/** A link of a page of an e-book. */
export interface EpubLink {
  id: string;
  /** Which of the page’s links it was in the file that came, from 0; null for a new one. */
  from: number | null;
  on: LinkGround;
  /** Its words, or what a picture or an area says. */
  words: string;
  /** Whether they can be changed: not where several things are in the link, nor in a new one. */
  hasOwnWords: boolean;
  /** Whether it is the way to a note or back. */
  isNoteSign: boolean;
  destination: Destination;
  description: string | null;
  /** Its address as the file that came has it; null for a new one. */
  href: string | null;
}

/** A landing place of a page, besides its top. */
export interface EpubPlace {
  id: string;
  /** A heading, or any other element that has an id or that somebody has pointed at. */
  of: "heading" | "element";
  /** Of a heading, from 1; null for all else. */
  level: number | null;
  name: string;
  /** Which element of the page’s body it is, from 0, in the order in which they begin. */
  element: number;
  /** By what addresses name it; null where the file that came names it by nothing. */
  fragment: string | null;
}

/** A link of the file that stays as it is, with the reason. */
export interface UntouchedEpubLink {
  from: number;
  on: LinkGround;
  words: string;
  href: string;
  why: string;
  /** Whether it leads no reader anywhere. */
  isDead: boolean;
}

/** The links and places of one page of an e-book, as they are to be. */
export interface EpubPage {
  type: "epub-page";
  /** From 1, those that are read in order first. */
  number: number;
  /** Of its file in the container. */
  path: string;
  title: string;
  /** Whether it is in the reading order; only there links may lead (EPUB 3.3, 3.4). */
  isInOrder: boolean;
  /** Whether it is the e-book’s navigation, whose links are entries. */
  isNavigation: boolean;
  /** Why nothing of it can be changed; null where it can. */
  stays: string | null;
  links: EpubLink[];
  places: EpubPlace[];
  untouched: UntouchedEpubLink[];
  /** Whether nothing is shown on it. */
  isBlank: boolean;
}

/** The id of the place that is the top of a page. */
export function topOfEpubPage(number: number): string {
  return `page-${number}`;
}

/** The id of the place that an element of a page is. */
export function elementPlaceId(number: number, element: number): string {
  return `place-${number}-${element}`;
}

/** As many links, and as many places, as a page can have. */
export const mostOfAPage = 20_000;
const longestText = 10_000;

/**
 * Says whether a value read from outside is the links and places of a page.
 * @throws FinishedError `page` with what is wrong; DestinationError where a destination is none
 */
export function readEpubPage(value: unknown): EpubPage {
  const page = (value ?? {}) as EpubPage;
  assert(page.type === "epub-page", "This is no page of an e-book.");
  assert(isCount(page.number) && page.number >= 1, "A page has a number.");
  assert(isText(page.path) && isText(page.title), "A page has a path and a title.");
  assert(
    typeof page.isNavigation === "boolean" && typeof page.isInOrder === "boolean",
    "A page says whether it is read in order, and whether it is the navigation.",
  );
  assert(page.stays === null || isText(page.stays), "A page says why it stays as it is.");
  for (const list of [page.links, page.places, page.untouched])
    assert(
      Array.isArray(list) && list.length <= mostOfAPage,
      "A page has at most 20,000 links and as many places.",
    );
  const ids = new Set<string>();
  for (const link of page.links) {
    assert(isId(link.id) && !ids.has(link.id), "Every link of a page has an id of its own.");
    ids.add(link.id);
    assert(link.from === null || isCount(link.from), "A link says which of the page’s it was.");
    assert(isGround(link.on), "A link lies on something.");
    assert(
      isText(link.words) && typeof link.hasOwnWords === "boolean" && typeof link.isNoteSign === "boolean",
      "The words of a link have at most 10,000 characters.",
    );
    assert(
      link.description === null || isText(link.description),
      "A description has at most 10,000 characters.",
    );
    assert(link.href === null || isText(link.href), "A link says its address.");
    assertDestination(link.destination);
  }
  for (const { id, of, level, name, element, fragment } of page.places) {
    assert(
      isId(id) && isText(name) && (of === "heading" || of === "element") && isCount(element),
      "A place has an id and a name.",
    );
    assert(
      (level === null || isCount(level)) && (fragment === null || isText(fragment)),
      "A place has a level and a fragment.",
    );
  }
  for (const { from, on, words, href, why } of page.untouched)
    assert(
      isCount(from) && isGround(on) && isText(words) && isText(href) && isText(why),
      "What stays says why.",
    );
  const { type, number, path, title, isInOrder, isNavigation, stays, links, places, untouched, isBlank } =
    page;
  return {
    type,
    number,
    path,
    title,
    isInOrder,
    isNavigation,
    stays,
    links: links.map((link) => ({
      id: link.id,
      from: link.from,
      on: plainGround(link.on),
      words: link.words,
      hasOwnWords: link.hasOwnWords,
      isNoteSign: link.isNoteSign,
      destination: link.destination,
      description: link.description,
      href: link.href,
    })),
    places: places.map(({ id, of, level, name, element, fragment }) => ({
      id,
      of,
      level,
      name,
      element,
      fragment,
    })),
    untouched: untouched.map(({ from, on, words, href, why, isDead }) => ({
      from,
      on: plainGround(on),
      words,
      href,
      why,
      isDead: isDead === true,
    })),
    isBlank: isBlank === true,
  };
}

function assert(isSo: boolean, message: string): asserts isSo {
  if (!isSo) throw new FinishedError("page", message);
}

const isCount = (value: unknown): value is number =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) <= 1e9;
const isText = (value: unknown): value is string => typeof value === "string" && value.length <= longestText;
/** Ids stand in documents too, whose ids are such. */
const isId = (value: unknown): value is string =>
  typeof value === "string" && /^[A-Za-z][\w-]{0,63}$/.test(value);

function isGround(value: unknown): value is LinkGround {
  const { kind, from, to, element } = (value ?? {}) as LinkGround;
  return (
    ["words", "picture", "area"].includes(kind) &&
    isCount(from) &&
    isCount(to) &&
    from <= to &&
    isCount(element)
  );
}

function plainGround({ kind, from, to, element }: LinkGround): LinkGround {
  return { kind, from, to, element };
}

/** Whether two links are the same to whoever meets them in the file. */
export function sameEpubLink(a: EpubLink, b: EpubLink): boolean {
  const told = ({ words, destination, description }: EpubLink): string =>
    JSON.stringify([words, destination, description || null]);
  return told(a) === told(b);
}

/** Where a place of an e-book is: its page, and what of it; null for its top. */
export interface PlaceInEpub {
  page: EpubPage;
  place: EpubPlace | null;
}

/** Where every place of an e-book is, by its id. */
export function placesOfEpub(pages: readonly EpubPage[]): Map<string, PlaceInEpub> {
  return new Map(
    pages.flatMap((page): [string, PlaceInEpub][] => [
      [topOfEpubPage(page.number), { page, place: null }],
      ...page.places.map((place): [string, PlaceInEpub] => [place.id, { page, place }]),
    ]),
  );
}

/** By what addresses name a place that the file that came names by nothing: by what no other place of its page is called. */
export function newFragment({ element }: Pick<EpubPlace, "element">, { places }: EpubPage): string {
  const taken = new Set(places.map(({ fragment }) => fragment));
  let free = `linked-place-${element}`;
  while (taken.has(free)) free += "-2";
  return free;
}
