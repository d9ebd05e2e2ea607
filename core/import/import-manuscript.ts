import type { Element, ElementContent, Root, RootContent } from "hast";
import { toString } from "hast-util-to-string";
import type { Node } from "prosemirror-model";
import type { ChapterRole } from "../manuscript/chapter-role.ts";
import { findBareAddresses } from "../manuscript/bare-addresses.ts";
import { BookIndex } from "../manuscript/book-index.ts";
import { defaultConventions, type Conventions } from "../manuscript/conventions.ts";
import { guessLanguage, languageTag } from "../manuscript/language.ts";
import type { PageLayout } from "../manuscript/page-layout.ts";
import { pictureSize } from "../manuscript/picture-size.ts";
import { placesOf } from "../manuscript/outline.ts";
import { writableValue } from "../manuscript/writable-text.ts";
import { levels } from "../levels.ts";
import { tooDeep } from "./errors.ts";
import type { FileLink } from "./arrival/file-links.ts";
import { proveArrival, type ArrivalProof } from "./arrival/arrival-proof.ts";
import { looseIntoItems } from "./hast-to-manuscript/loose-in-lists.ts";
import { anchorsByIds } from "./hast-to-manuscript/places-by-id.ts";
import { FileNames, fileNameOf } from "./file-name.ts";
import { listsOfContents } from "./lists-of-contents.ts";
import { allElements } from "./hast-nodes.ts";
import { takeNumbers } from "./take-numbers.ts";
import { followTargets } from "./follow-targets.ts";
import { withoutWhatIsMade } from "./hast-to-manuscript/carried.ts";
import type { MissingPicture } from "./hast-to-manuscript/file-reading.ts";
import { hastToManuscript } from "./hast-to-manuscript/hast-to-manuscript.ts";
import { outOfInlines } from "./hast-to-manuscript/out-of-inlines.ts";
import type { LeftOut } from "./left-out.ts";
import type { AboutManuscript, BroughtFile, EnclosedFile, ManuscriptReader } from "./manuscript-reader.ts";
import { pictureKind } from "./pictures.ts";
import { closeUpLevels } from "./close-up-levels.ts";
import { headingsOf } from "./raise-headings.ts";
import { makeWritable } from "./make-writable.ts";
import { partLongChapters } from "./part-long-chapters.ts";
import { readerFor } from "./readers.ts";
import { webPicturesOf, type WebPicture } from "./web-pictures.ts";

export interface ImportOptions {
  /** The title of the chapter for text before the first level-1 heading, where the file says none. */
  fallbackTitle: string;
  /** An absolute web address from which relative links start; null keeps them as files. */
  baseAddress: string | null;
  /** The id of the stored file for a picture's source, or null where it was not brought beside the manuscript. */
  pictureFor: (source: string) => string | null;
  /** The size of such a picture in pixels, where it is known. */
  pictureSize?: (source: string) => { width: number; height: number } | null;
  /** Why a picture that was to be fetched from the web did not come; null for any other. */
  unfetched?: (source: string) => string | null;
  /** Draws a picture that not every reader shows, as PNG; null for one that cannot be read. Left out: none is taken. */
  drawn?: (bytes: Uint8Array) => Promise<Uint8Array | null>;
  /** What the book counts that the manuscript becomes chapters of; left out for a book of its own. */
  conventions?: Conventions;
  /** Other files that were brought beside it: links that name one lead to it. */
  beside?: readonly { id: string; name: string }[];
}

/** A file that came inside a manuscript, with the id by which its links and pictures know it. */
export interface ArrivedFile extends BroughtFile {
  id: string;
}

/** A manuscript as it arrived. */
export interface ImportedManuscript {
  /** What the file says that it is called; else the words of the first level-1 heading, or the fallback title. */
  title: string;
  /** Who wrote it, where the file says so. */
  author: string | null;
  /** A BCP 47 tag: what the file says, else what its letters tell; null where they do not. */
  language: string | null;
  /** What the file says, or shows, that its book counts; null where it does not. */
  conventions: Conventions | null;
  /** How the file lays its pages out; null where it has none that a book can have. */
  layout: PageLayout | null;
  /** One valid document a chapter. */
  chapters: Node[];
  /** Of each chapter, whether it is one of the reading order. */
  roles: ChapterRole[];
  pictures: ArrivedFile[];
  companions: ArrivedFile[];
  /** The ids of the files brought beside it to which links lead. */
  usedBeside: string[];
  /** The pictures that lie on the web and were not brought along. */
  webPictures: WebPicture[];
  leftOut: LeftOut[];
  /** The links of the file, compared with those that arrived; null where the second reader cannot read it. */
  arrival: ArrivalProof | null;
}

/**
 * Brings a manuscript file in: finds the reader for what is in it, reads it into a tree, and makes chapters of that.
 * @throws ImportError where no reader knows the file, or the one that does cannot read it; `too-deep` where what is
 * in it lies too deep in each other
 */
export async function importManuscript(
  file: BroughtFile,
  options: ImportOptions,
): Promise<ImportedManuscript> {
  const reader = readerFor(file);
  const read = await inStack(() => reader.read(file));
  const { tree, pictures, companions, leftOut, whereOf } = read;
  const about = writableValue(read.about);
  const deep = firstTooDeep(tree);
  if (deep) throw tooDeep(whereOf(deep));
  makeWritable(tree);
  withoutWhatIsMade(tree);
  closeUpLevels(tree);
  listsOfContents(tree);
  outOfInlines(tree);
  anchorsByIds(tree);
  looseIntoItems(tree);
  const sources = new Set(allElements(tree).map(({ properties: { src } }) => src));
  const numbered = takeNumbers(tree);
  const inText = pictures.filter(({ reference }) => sources.has(reference));
  const shown = await shownPictures(inText, options.drawn);
  const arrivedPictures = new ArrivedFiles(shown.pictures);
  const arrivedCompanions = new ArrivedFiles(companions);
  const { beside = [] } = options;
  const namesBeside = new FileNames(beside.map(({ name }) => name));
  const usedBeside = new Set<string>();
  const idBeside = (href: string): string | null => {
    const meant = namesBeside.meant(fileNameOf(href));
    const id = beside.find(({ name }) => name === meant)?.id;
    if (id !== undefined) usedBeside.add(id);
    return id ?? null;
  };
  const pictureFor = (source: string): string | null =>
    arrivedPictures.idFor(source) ?? options.pictureFor(source);
  const title = titleOf(about);
  // Two chapters of one name would be told apart by nobody.
  const opening = headingsOf(tree).some(({ heading }) => toString(heading).trim() === title) ? null : title;
  const whole = hastToManuscript(tree, {
    ...options,
    fallbackTitle: opening ?? options.fallbackTitle,
    whereOf,
    pictureFor,
    missing: (source) => (shown.unread.has(source) ? unreadable : unfetched(options, source)),
    pictureSize: (source) => arrivedPictures.sizeOf(source) ?? options.pictureSize?.(source) ?? null,
    companionFor: (href) => arrivedCompanions.idFor(href.replace(/#.*$/s, "")) ?? idBeside(href),
  });
  const parted = partLongChapters(whole.chapters, whole.roles);
  const made = { ...whole, ...parted, leftOut: [...whole.leftOut, ...parted.leftOut] };
  const conventions =
    about?.conventions ?? (numbered.upTo > 0 ? { ...defaultConventions, headings: numbered.upTo } : null);
  const unnumbered = about?.conventions || options.conventions ? [] : numbered.unnumbered;
  const language =
    languageTag(about?.language ?? "") ??
    guessLanguage(made.chapters.map(({ textContent }) => textContent).join(" "));
  const indexOfChapters = (docs: readonly Node[]): BookIndex =>
    new BookIndex(
      docs.map((doc, i) => ({ role: made.roles[i]!, places: placesOf(doc) })),
      options.conventions ?? conventions ?? defaultConventions,
      { title: title ?? made.title, language: language ?? "en" },
    );
  const chapters = followTargets(made.chapters, made.follows, indexOfChapters(made.chapters));
  const told = [...leftOut, ...unnumbered, ...made.leftOut, ...bareAddresses(chapters)];
  const fileLinks = secondReading(reader, file);
  const arrival =
    fileLinks &&
    proveArrival(fileLinks, {
      chapters,
      ownTitles: parted.ownTitles,
      index: indexOfChapters(chapters),
      leftOut: told,
      baseAddress: options.baseAddress,
      companions: new Map([
        ...arrivedCompanions.names(),
        ...beside.map(({ id, name }) => [id, name] as const),
      ]),
    });
  return {
    title: title ?? made.title,
    author: about?.author ?? null,
    language,
    conventions,
    layout: about?.layout ?? null,
    chapters,
    roles: made.roles,
    pictures: arrivedPictures.used(),
    companions: arrivedCompanions.used(),
    usedBeside: [...usedBeside],
    webPictures: webPicturesOf(tree, options.baseAddress, (source) => pictureFor(source) !== null),
    leftOut: told,
    arrival,
  };
}

/** What is told of addresses that stand in the text and are no links. */
function bareAddresses(chapters: readonly Node[]): LeftOut[] {
  return chapters.flatMap(findBareAddresses).map(({ text }) => ({
    where: null,
    sort: "Addresses without a link",
    what: text,
    why: "It is no link in the file. “Addresses without a link”, among the links of the book, makes one of it.",
  }));
}

/** Pictures as every reader shows them, those of other kinds drawn, and the references of those that cannot be read. */
async function shownPictures(
  pictures: readonly EnclosedFile[],
  drawn: ImportOptions["drawn"],
): Promise<{ pictures: EnclosedFile[]; unread: ReadonlySet<string> }> {
  const all: EnclosedFile[] = [];
  const unread = new Set<string>();
  for (const picture of pictures) {
    const isShown = pictureKind(picture.bytes) === "shown";
    const bytes = isShown ? picture.bytes : ((await drawn?.(picture.bytes)) ?? null);
    const name = isShown ? picture.name : picture.name.replace(/(\.(svg|webp|avif))?$/i, ".png");
    if (bytes) all.push({ ...picture, name, bytes });
    else unread.add(picture.reference);
  }
  return { pictures: all, unread };
}

const unreadable: MissingPicture = {
  sort: "Pictures that cannot be read",
  why: "It is damaged, or of a kind that cannot be drawn.",
};

/** What is told of a picture that was to be fetched from the web and did not come; null for any other. */
function unfetched(options: ImportOptions, source: string): MissingPicture | null {
  const why = options.unfetched?.(source) ?? null;
  return why === null ? null : { sort: "Pictures that could not be fetched", why };
}

/** The title that a file says it has; programs write some by themselves, which nobody has given. */
function titleOf(about: AboutManuscript | undefined): string | null {
  const title = about?.title?.replace(/\s+/g, " ").trim() ?? "";
  return title === "" || /^(untitled|document|new document|normal)?\s*\d*$/i.test(title) ? null : title;
}

/** Readers go into a tree as deep as it is; one that is too deep for that is told, and nothing else happens. */
async function inStack<T>(read: () => T | Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof RangeError) throw tooDeep(null);
    throw error;
  }
}

/** The links of a file by the second reader; null where that cannot read what the first could, as in a damaged file. */
function secondReading(reader: ManuscriptReader, file: BroughtFile): FileLink[] | null {
  try {
    return writableValue(reader.linksOf(file));
  } catch {
    return null;
  }
}

/** How deep elements may lie in each other: pages of the web have some thirty levels. */
const deepestTree = 400;

/** The first element that lies too deep; null where none does. */
function firstTooDeep(tree: Root): Element | null {
  let depth = 0;
  for (const level of levels<Inside>(tree, (node) => ("children" in node ? node.children : []))) {
    const element = depth++ > deepestTree ? level.find((node) => node.type === "element") : undefined;
    if (element) return element;
  }
  return null;
}

type Inside = Root | ElementContent | RootContent;

/** Enclosed files, of which those that are referred to get an id. */
class ArrivedFiles {
  private readonly ids = new Map<string, string>();

  constructor(private readonly files: readonly EnclosedFile[]) {}

  idFor(reference: string): string | null {
    if (!this.files.some((file) => file.reference === reference)) return null;
    let id = this.ids.get(reference);
    if (!id) this.ids.set(reference, (id = crypto.randomUUID()));
    return id;
  }

  sizeOf(reference: string): { width: number; height: number } | null {
    const file = this.files.find((one) => one.reference === reference);
    return file ? pictureSize(file) : null;
  }

  /** The names by which the file calls those that are referred to, by their ids. */
  names(): [id: string, name: string][] {
    return [...this.ids].map(([reference, id]) => [id, fileNameOf(reference)]);
  }

  used(): ArrivedFile[] {
    return this.files.flatMap(({ reference, name, bytes }) => {
      const id = this.ids.get(reference);
      return id ? [{ id, name, bytes }] : [];
    });
  }
}
