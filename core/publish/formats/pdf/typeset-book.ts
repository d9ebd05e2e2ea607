import { topOfBook, type BookIndex } from "../../../manuscript/book-index.ts";
import { indexOf, pictureSuffix, type Book } from "../../../manuscript/book.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import { orderNotes } from "../../../manuscript/notes.ts";
import { languageOf } from "../../../manuscript/language.ts";
import { linkUses } from "../../../manuscript/links.ts";
import type { MathElement } from "../../../manuscript/math.ts";
import { pageSize, textWidth } from "../../../manuscript/page-layout.ts";
import { hasOwnContents } from "../../../manuscript/signposts.ts";
import { writeDestination } from "../../../destination/destination.ts";
import { ownFonts } from "../../own-fonts.ts";
import { travellingFiles } from "../../travelling-files.ts";
import { textsOf, withStandIns } from "./missing-letters.ts";
import type { PrintedAddresses } from "./options.ts";
import type { SetLanguage } from "./set-data.ts";
import { setMath } from "./set-math.ts";
import type { Keep } from "./stray-notes.ts";
import type { BookBeingSet, MarkedLink } from "./book-being-set.ts";
import { TypesetWalk } from "./typeset-walk.ts";
import { withWideWordsParted } from "./wide-words.ts";
import {
  BookScripts,
  familiesOfBook,
  familiesOfLetters,
  withFamiliesOfSigns,
  type Shapes,
} from "./script-fonts.ts";
import { typesetLanguage } from "./typeset-language.ts";

/** What the typesetter's template reads: JSON files by path. Author text is data in them, never markup. */
export type TypesetFiles = Map<string, string>;

/** How a book is set. */
export interface TypesetChoices {
  addresses?: PrintedAddresses;
  /** Where the book is given with one chapter alone. */
  alone?: ChapterAlone | null;
  /** What stands in the place of letters that no font has. */
  missing?: ReadonlyMap<string, string>;
  /** What the author's own fonts have letters for. */
  shapes?: Shapes;
}

const pointsOfPx = 72 / 96;
/** Of the letters of the book's title on its page, in the template. */
const titlePoints = 24;
const noShapes: Shapes = { has: () => false };

/** What is known of the rest of a book of which one chapter is set without the others. */
export interface ChapterAlone {
  /** Which of all chapters it is. */
  at: number;
  /** The landing places of the whole book. */
  index: BookIndex;
  /** The page numbers of the rest, as far as they are known. */
  pageOfPlace: ReadonlyMap<string, string>;
}

/** A book with one of its chapters, and what that needs to be set without the others. */
export function chapterAlone(book: Book, at: number): { book: Book; alone: ChapterAlone } {
  const alone = { at, index: indexOf(book), pageOfPlace: new Map() };
  return { book: { ...book, chapters: [book.chapters[at]!] }, alone };
}

export interface Typeset {
  files: TypesetFiles;
  /** The file of each chapter, with the notes that are called in it. */
  chapters: readonly { path: string; called: readonly string[] }[];
  /** What sets all chapters alike: where it is the same, so are the lines of a chapter that is. */
  frame: string;
  /** The files with something asked of the paragraphs in which notes are called, by the ids of the notes. */
  keeping(keeps: ReadonlyMap<string, Keep>): TypesetFiles;
  /** Pictures to be laid beside the JSON, by path. */
  pictures: Map<string, Uint8Array>;
  marked: MarkedLink[];
  /** The whole tags of its languages, by what the typesetter writes of them. */
  languages: ReadonlyMap<string, string>;
}

/**
 * The data from which the typesetter makes a PDF: `book.json` and one file a chapter. A link into the book,
 * and one with a description, carries a marker for its address; whoever finishes the PDF puts in where it
 * leads. `places` in `book.json` names every landing place whose position is asked for. Numbers and references are those of
 * the whole book also where one chapter is set alone; the fonts for its scripts are those that its own text needs.
 */
export function typesetBook(
  book: Book,
  { addresses = "none", alone = null, missing = new Map(), shapes = noShapes }: TypesetChoices = {},
): Typeset {
  const pictures = new Map<string, Uint8Array>();
  const textPoints = textWidth(book.layout) * pointsOfPx;
  const picturePaths = new Map<string, string>();
  for (const { id, mediaType, bytes } of book.pictures) {
    const path = `/picture-${id}.${pictureSuffix[mediaType]}`;
    picturePaths.set(id, path);
    pictures.set(path, bytes);
  }
  const index = alone?.index ?? indexOf(book);
  const setting: BookBeingSet = {
    index,
    files: travellingFiles(book),
    picturePaths,
    line: textPoints / book.layout.fontSize,
    addresses,
    markerBase: unusedMarker(book),
    marked: [],
    printed: [],
    printedCount: 0,
    labelled: new Set(),
    paged: new Set(),
    held: new Map(),
  };
  const files: TypesetFiles = new Map();
  const text = [
    book.title,
    book.author,
    ...Object.values(index.words),
    ...book.chapters.flatMap(({ doc }) => textsOf(doc).map((one) => one.text)),
  ].join("\n");
  const { own, ...families } = withFamiliesOfSigns(
    familiesOfBook(ownFonts(book, "pdf").fonts),
    text,
    book.language,
  );
  const scripts = new BookScripts(text, book.language, { text: families.text, own }, shapes);
  const settingOfMath = {
    shown: (words: string) => withStandIns(words, missing),
    shapes,
    familiesOf: (words: string) => [...familiesOfLetters(words, book.language), ...families.text],
  };
  const written = (data: unknown, keeps: ReadonlyMap<string, Keep> = new Map()): string =>
    JSON.stringify(data, function (this: { language?: SetLanguage }, key, value: unknown) {
      if (key === "keep") return mostKept(value as string[], keeps);
      if (key === "math") return setMath(value as MathElement, settingOfMath);
      return typeof value === "string" && setKeys.has(key)
        ? scripts.spell(withStandIns(value, missing), this.language?.tag)
        : value;
    });
  const set = book.chapters.map(({ doc }, i) => ({ doc, at: alone?.at ?? i }));
  const walkOf = (one: (typeof set)[number]): TypesetWalk => new TypesetWalk({ ...one, index }, setting);
  const chapters = set.map((one) => {
    const data = walkOf(one).wholeChapter();
    return { path: `/chapter-${one.at + 1}.json`, data, called: orderNotes(one.doc) };
  });
  for (const { path, data } of chapters) files.set(path, written(data));
  const notes =
    index.conventions.notesAt === "book"
      ? set.flatMap((one) => {
          const list = walkOf(one).allNotes();
          return list.length > 0 ? [{ chapter: chapterTitle(one.doc), notes: list }] : [];
        })
      : [];
  const frame = {
    ...typesetLanguage(book.language),
    direction: index.direction,
    looks: book.looks,
    layout: { ...book.layout, ...pageSize(book.layout) },
    fonts: { ...families, scripts: scripts.families },
  };
  files.set(
    "/book.json",
    written({
      name: book.title,
      writer: book.author,
      title: book.title,
      onTitlePage: withWideWordsParted([{ kind: "text", words: book.title }], textPoints / titlePoints),
      author: book.author,
      ...frame,
      words: index.words,
      top: topOfBook,
      contents: alone === null && !hasOwnContents(book),
      // Pages that are not set with it are known from an earlier file, if at all.
      alone: alone && { pages: pagesOf(setting.paged, alone.pageOfPlace) },
      chapters: chapters.map(({ path }) => path),
      notes,
      addresses: setting.printed,
      places: [...(alone ? [] : [topOfBook]), ...setting.labelled, ...setting.held.keys()],
      held: Object.fromEntries(setting.held),
    }),
  );
  const languages = new Map<string, string>();
  const nameLanguage = (tag: string): void => {
    const { lang, region } = typesetLanguage(tag);
    languages.set(region === null ? lang : `${lang}-${region}`, tag);
  };
  for (const { doc } of book.chapters)
    doc.descendants((node) => {
      const tag = node.isText ? languageOf(node) : null;
      if (tag !== null) nameLanguage(tag);
    });
  nameLanguage(book.language);
  const keeping = (keeps: ReadonlyMap<string, Keep>): TypesetFiles => {
    const asked = chapters.filter(({ called }) => called.some((id) => keeps.has(id)));
    return new Map([...files, ...asked.map(({ path, data }) => [path, written(data, keeps)] as const)]);
  };
  return {
    files,
    chapters,
    frame: JSON.stringify(frame),
    keeping,
    pictures,
    marked: setting.marked,
    languages,
  };
}

/** What is asked of a paragraph that calls these notes: one that goes to the next page for one of them does so for all. */
function mostKept(called: readonly string[], keeps: ReadonlyMap<string, Keep>): Keep | undefined {
  const asked = called.flatMap((id) => keeps.get(id) ?? []);
  return asked.includes("next-page") ? "next-page" : asked[0];
}

function pagesOf(
  places: ReadonlySet<string>,
  pageOfPlace: ReadonlyMap<string, string>,
): Record<string, string> {
  const known = [...places].filter((place) => pageOfPlace.has(place));
  return Object.fromEntries(known.map((place) => [place, pageOfPlace.get(place)!]));
}

/** Under what the data has words that are set. */
const setKeys = new Set([
  "title",
  "author",
  "words",
  "heading",
  "lead",
  "chapter",
  "contents",
  "notes",
  "addresses",
]);

/** The beginning of all markers: an address with which no link of the book begins (the name is of RFC 2606's `.invalid`). */
function unusedMarker({ chapters }: Pick<Book, "chapters">): string {
  const written = chapters.flatMap(({ doc }) =>
    linkUses(doc).map(({ destination }) => writeDestination(destination)),
  );
  for (let n = 0; ; n++) {
    const base = `https://${n === 0 ? "vennet" : `vennet-${n}`}.invalid/`;
    if (!written.some((address) => address.includes(base))) return base;
  }
}
