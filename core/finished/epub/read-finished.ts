import { readHref } from "../../destination/destination.ts";
import { DestinationError } from "../../destination/errors.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { schemeOf } from "../../destination/scheme.ts";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { packageOf } from "../../import/epub/package-of-epub.ts";
import { pathFrom } from "../../import/joined-pages.ts";
import { decodePage } from "../../import/text-encoding.ts";
import { newId } from "../../manuscript/ids.ts";
import { FinishedError } from "../errors.ts";
import type { FinishedFacts } from "../facts.ts";
import type { TellPage } from "../tell-page.ts";
import {
  elementPlaceId,
  mostOfAPage,
  topOfEpubPage,
  type EpubLink,
  type EpubPage,
  type EpubPlace,
  type LinkGround,
} from "./epub-page.ts";
import { pageEvents } from "./page-events.ts";
import { addressOf, linkElements, XhtmlSource, type SourceElement } from "./xhtml-source.ts";

/** A page as the file has it: its links and places, and its source, by which they are changed. */
export interface ReadEpubPage {
  page: EpubPage;
  source: XhtmlSource;
  /** The elements that are its links, in order: `from` counts them. */
  elements: SourceElement[];
}

/**
 * Reads every link of an e-book (EPUB 2 and 3) with its words or picture, where it leads and its description, and the
 * places to which links can lead: the tops of pages, headings, and all elements that have an id.
 * @throws ImportError where it is none, locked or damaged
 */
export function readFinishedEpub(
  bytes: Uint8Array,
  tell: TellPage = () => undefined,
): { facts: FinishedFacts; pages: EpubPage[] } {
  const { about, pages } = openEpub(bytes, tell);
  const { title, author, language } = about;
  const facts = { title, author, language, pages: pages.length };
  const none = { isTagged: false, isSigned: false, hasBrokenTable: false };
  return { facts: { ...facts, ...none }, pages: pages.map(({ page }) => page) };
}

/** An e-book with its pages as the file has them, and all its files. */
export function openEpub(
  bytes: Uint8Array,
  tell: TellPage = () => undefined,
): {
  files: Readonly<Record<string, Uint8Array>>;
  about: Pick<FinishedFacts, "title" | "author" | "language">;
  pages: ReadEpubPage[];
} {
  const { files, folder, allPages, about } = packageOf(bytes);
  if (folder !== "")
    throw new FinishedError(
      "format",
      `The e-book lies in a folder (${folder}) within the file, where reading programs do not find it. Pack what is in that folder, not the folder itself, and bring it again.`,
    );
  const pages = allPages.map(({ path, isInOrder, isNavigation }, i): ReadEpubPage => {
    const { text, why } = readText(files[path]!);
    const source = new XhtmlSource(text);
    const elements = linkElements(source);
    const heading = source.elements.find(({ name }) => /^h[1-6]$/.test(name));
    const title = (heading && source.shownWordsOf(heading)) || source.title || path;
    const page: EpubPage = {
      type: "epub-page",
      number: i + 1,
      path,
      title: title.slice(0, longestName),
      isInOrder,
      isNavigation,
      stays: why,
      links: [],
      // A page that stays gets no new names.
      places: isInOrder ? placesOf(source, i + 1).filter((one) => why === null || one.fragment !== null) : [],
      untouched: [],
      isBlank: why === null && showsNothing(source),
    };
    if (elements.length > mostOfAPage)
      throw new FinishedError(
        "page",
        `The page ${path} has ${elements.length} links. As many as ${mostOfAPage} can be worked on.`,
      );
    if (why !== null) leaveAll(page, source, elements, why);
    tell(i + 1, allPages.length);
    return { page, source, elements };
  });
  const reading = new ReadingLinks(pages, new Set(Object.keys(files)));
  for (const one of pages) if (one.page.stays === null) reading.of(one);
  for (const { page } of pages) page.places = withinLimit(page.places, reading.linked);
  return { files, about, pages };
}

const longestName = 500;
const longestWords = 2_000;

/** Elements that show something without words. */
const shown = new Set([
  "img",
  "svg",
  "image",
  "video",
  "audio",
  "object",
  "iframe",
  "embed",
  "canvas",
  "math",
  "hr",
  "input",
]);

/** Whether a page has neither words nor anything else that readers see. */
function showsNothing({ text, elements }: XhtmlSource): boolean {
  return text.trim() === "" && !elements.some(({ name }) => shown.has(name));
}

/** The text of a page, and why it is to stay as it is; null where nothing is against changing it. */
function readText(bytes: Uint8Array): { text: string; why: string | null } {
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    text = decodePage(bytes);
    return { text, why: "Its page is not written in UTF-8, and stays as it is." };
  }
  const fault = faultOf(text);
  return { text, why: fault && `Its page is not well-formed, and stays as it is: ${fault}` };
}

/** What is wrong with a page as XML (XML 1.0); null where nothing is. */
function faultOf(text: string): string | null {
  try {
    pageEvents(text);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

function placesOf(source: XhtmlSource, number: number): EpubPlace[] {
  return source.elements.flatMap((element): EpubPlace[] => {
    const level = /^h([1-6])$/.exec(element.name)?.[1];
    const own = element.attributes.get("id")?.value || null;
    // An old way to name a place (XHTML 1.1, attribute `name` of `a`).
    const fragment = own ?? (element.name === "a" ? (element.attributes.get("name")?.value ?? null) : null);
    if (level === undefined && !fragment) return [];
    const words = source.shownWordsOf(element);
    const isHeading = level !== undefined && words !== "";
    if (!isHeading && !fragment) return [];
    return [
      {
        id: elementPlaceId(number, element.index),
        of: isHeading ? "heading" : "element",
        level: isHeading ? Number(level) : null,
        name: (words.slice(0, longestPlaceName) || `#${fragment}`).slice(0, longestName),
        element: element.index,
        fragment,
      },
    ];
  });
}

const longestPlaceName = 120;

/** Of too many places those that are headings or led to, and then the first. */
function withinLimit(places: EpubPlace[], linked: ReadonlySet<string>): EpubPlace[] {
  if (places.length <= mostOfAPage) return places;
  const isKept = ({ id, of }: EpubPlace): boolean => of === "heading" || linked.has(id);
  const kept = new Set(
    [...places.filter(isKept), ...places.filter((place) => !isKept(place))].slice(0, mostOfAPage),
  );
  return places.filter((place) => kept.has(place));
}

function leaveAll(
  page: EpubPage,
  source: XhtmlSource,
  elements: readonly SourceElement[],
  why: string,
): void {
  page.untouched = elements.map((element, from) => ({
    from,
    on: groundOf(source, element),
    words: wordsIn(source, element).words.slice(0, longestWords),
    href: addressOf(element)!.slice(0, longestWords),
    why,
    isDead: false,
  }));
}

function groundOf(source: XhtmlSource, element: SourceElement): LinkGround {
  const { from, to, index } = element;
  const isPicture = source.wordsOf(element) === "" && picturesIn(source, element).length > 0;
  return {
    kind: element.name === "area" ? "area" : isPicture ? "picture" : "words",
    from,
    to,
    element: index,
  };
}

function picturesIn(source: XhtmlSource, element: SourceElement): SourceElement[] {
  return source.within(element).filter(({ name }) => name === "img" || name === "image");
}

/** What a link says, and whether that can be changed as one. */
function wordsIn(source: XhtmlSource, element: SourceElement): { words: string; isOwn: boolean } {
  const said = ({ attributes }: SourceElement): string =>
    (attributes.get("alt") ?? attributes.get("aria-label"))?.value ?? "";
  const folded = (words: string): string => words.replace(/\s+/g, " ").trim();
  if (element.name === "area") return { words: folded(said(element)), isOwn: true };
  const pictures = picturesIn(source, element);
  let words = "";
  let done = element.from;
  for (const picture of pictures) {
    words += `${source.text.slice(done, picture.from)} ${said(picture)} `;
    done = picture.from;
  }
  words += source.text.slice(done, element.to);
  const isPicture = source.wordsOf(element) === "" && pictures.length === 1 && pictures[0]!.name === "img";
  const isText =
    pictures.length === 0 && source.within(element).every(({ name }) => !/^(br|svg|math)$/.test(name));
  return { words: folded(words), isOwn: isPicture || isText };
}

/** Reads the links of pages, of which each may lead to a place of any other. */
class ReadingLinks {
  /** The ids of the places to which links lead. */
  readonly linked = new Set<string>();
  private readonly byPath: ReadonlyMap<string, ReadEpubPage>;
  private readonly byFragment = new Map<EpubPage, Map<string, string>>();

  constructor(
    pages: readonly ReadEpubPage[],
    private readonly files: ReadonlySet<string>,
  ) {
    this.byPath = new Map(pages.map((one) => [one.page.path, one]));
    for (const { page, source } of pages) {
      const ids = new Map(source.namesOfTop.map((name) => [name, topOfEpubPage(page.number)]));
      // The first of those that have one name is what readers find (WHATWG HTML, 7.4.6.4).
      for (const { id, fragment } of page.places) if (fragment && !ids.has(fragment)) ids.set(fragment, id);
      this.byFragment.set(page, ids);
    }
  }

  of({ page, source, elements }: ReadEpubPage): void {
    for (const [from, element] of elements.entries()) {
      const href = addressOf(element)!;
      const { words, isOwn } = wordsIn(source, element);
      const shared = { from, on: groundOf(source, element), words: words.slice(0, longestWords) };
      const read = this.destinationOf(page.path, href);
      if ("why" in read) {
        page.untouched.push({ ...shared, href: href.slice(0, longestWords), ...read });
        continue;
      }
      const description = (element.attributes.get("title") ?? element.attributes.get("xlink:title"))?.value;
      const link: EpubLink = {
        id: newId(),
        ...shared,
        hasOwnWords: isOwn && words.length <= longestWords,
        isNoteSign: isNoteSign(element) || (read.destination.kind === "place" && isSign.test(words)),
        destination: read.destination,
        description: description?.trim().slice(0, longestWords) || null,
        href: href.slice(0, longestWords),
      };
      page.links.push(link);
    }
  }

  /** Where an address leads, or why that cannot be worked on. */
  private destinationOf(
    path: string,
    href: string,
  ): { destination: Destination } | Pick<EpubPage["untouched"][number], "why" | "isDead"> {
    if (href === "")
      return { destination: { kind: "place", target: topOfEpubPage(this.byPath.get(path)!.page.number) } };
    if (schemeOf(href) === null && !href.startsWith("//")) {
      const target = href.startsWith("#") ? path : pathFrom(path, href);
      const there = this.byPath.get(target);
      if (there?.page.isInOrder)
        return { destination: { kind: "place", target: this.placeIn(there.page, href) } };
      if (this.files.has(target))
        return {
          why: `It leads to a file of the e-book that is not read in order: ${target}`,
          isDead: false,
        };
    }
    try {
      return { destination: readHref(href, null) };
    } catch (error) {
      if (!(error instanceof DestinationError)) throw error;
      return { why: `${error.message} (${href.slice(0, 300)})`, isDead: true };
    }
  }

  private placeIn(page: EpubPage, href: string): string {
    const written = /#(.+)$/s.exec(href)?.[1];
    if (written === undefined) return topOfEpubPage(page.number);
    const ids = this.byFragment.get(page)!;
    // Of one that leads nowhere the author is told as of any place that is gone.
    const id = ids.get(written) ?? ids.get(percentDecoded(written)) ?? "nowhere";
    this.linked.add(id);
    return id;
  }
}

/** What notes, and the ways back from them, are called where nothing says that they are some (common practice). */
const isSign = /^(?:[[(]?\d{1,3}[\])]?|[↩↵↑^*†‡§]+)$/u;

/** DPUB-ARIA 1.1 and EPUB Structural Semantics: ways to notes and back. */
function isNoteSign({ attributes }: SourceElement): boolean {
  const said = `${attributes.get("epub:type")?.value ?? ""} ${attributes.get("role")?.value ?? ""}`;
  return /\b(noteref|doc-noteref|backlink|doc-backlink|referrer)\b/.test(said);
}
