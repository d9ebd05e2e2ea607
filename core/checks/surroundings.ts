import { writeDestination } from "../destination/destination.ts";
import type { Book } from "../manuscript/book.ts";
import { BookIndex, type PlacesOfChapter } from "../manuscript/book-index.ts";
import type { Node } from "prosemirror-model";
import { chapterTitle, countWords, countWordsIn } from "../manuscript/chapter.ts";
import type { ChapterRole } from "../manuscript/chapter-role.ts";
import type { Conventions } from "../manuscript/conventions.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { placesOf } from "../manuscript/outline.ts";
import { textWidth } from "../manuscript/page-layout.ts";
import { pictureSize } from "../manuscript/picture-size.ts";
import type { CheckContext } from "./finding.ts";
import { wordsOf } from "./folded-words.ts";

/**
 * All that rules are told of a book besides the chapter that they look at. A whole book tells it of itself
 * (`surroundingsOf`), an open chapter is told it by the server; both become what rules see by `contextIn`.
 */
export interface Surroundings extends Omit<CheckContext, "index" | "chapter"> {
  title: string;
  conventions: Conventions;
  /** In reading order, the chapter that is checked among them. */
  chapters: readonly PlacesOfChapter[];
}

/** What is known of a book beside its text. */
export type KnownOfBook = Pick<
  CheckContext,
  "answers" | "shares" | "audience" | "describesAll" | "keepsAnchors" | "pages"
> &
  Partial<Pick<CheckContext, "pictureSizes">>;

/** Nothing is known: no destination was asked, and the book is for anyone. */
export const nothingKnown: KnownOfBook = { answers: new Map(), shares: new Map(), audience: "anyone" };

/** What rules see of a book at one of its chapters. @param chapter its index among them */
export function contextIn(
  surroundings: Surroundings,
  chapter: number,
  index: BookIndex = indexIn(surroundings),
): CheckContext {
  return { ...surroundings, index, chapter };
}

/** The landing places of a book of which this is known, with their numbers. */
export function indexIn(surroundings: Surroundings): BookIndex {
  return new BookIndex(surroundings.chapters, surroundings.conventions, surroundings);
}

/** What a book tells of itself. */
export function surroundingsOf(book: Book, known: KnownOfBook): Surroundings {
  const links = book.chapters.flatMap(({ doc }) => linkUses(doc));
  const wordsLead = new Map<string, Set<string>>();
  for (const link of links) {
    const words = link.on === "reference" ? "" : wordsOf(link);
    if (words === "") continue;
    const to = writeDestination(link.destination);
    const ends = wordsLead.get(words);
    if (ends) ends.add(to);
    else wordsLead.set(words, new Set([to]));
  }
  return {
    ...known,
    title: book.title,
    language: book.language,
    conventions: book.conventions,
    chapters: book.chapters.map(({ role, doc }) => ({ role, places: placesOf(doc) })),
    files: book.files,
    pictureSizes: new Map([
      ...(known.pictureSizes ?? []),
      ...book.pictures.map((picture) => [picture.id, pictureSize(picture)] as const),
    ]),
    textWidth: textWidth(book.layout),
    wordsLead,
    schemes: schemesOf(links),
    ledTo: new Set(links.flatMap(({ destination: to }) => (to.kind === "place" ? [to.target] : []))),
    unwritten: new Set(
      book.chapters.flatMap(({ role, doc }) => (isUnwritten(role, doc) ? [idOfTop(doc)] : [])),
    ),
  };
}

/**
 * What was told of a book, with a chapter as it stands now.
 * @param beside what was told, in which `schemes` leaves that chapter out
 */
export function withOpenChapter(beside: Surroundings, chapter: number, doc: Node): Surroundings {
  const own = schemesOf(linkUses(doc));
  const { role } = beside.chapters[chapter]!;
  const unwritten = new Set(beside.unwritten);
  unwritten.delete(idOfTop(doc));
  if (isUnwritten(role, doc)) unwritten.add(idOfTop(doc));
  return {
    ...beside,
    chapters: beside.chapters.map((one, i) => (i === chapter ? { role, places: placesOf(doc) } : one)),
    schemes: { http: beside.schemes.http + own.http, https: beside.schemes.https + own.https },
    unwritten,
  };
}

function schemesOf(links: readonly LinkUse[]): CheckContext["schemes"] {
  const schemes = { http: 0, https: 0 };
  for (const { destination } of links)
    if (destination.kind === "web") schemes[destination.address.startsWith("https:") ? "https" : "http"]++;
  return schemes;
}

/** Whether a companion page has no words beside its title yet. */
function isUnwritten(role: ChapterRole, doc: Node): boolean {
  return role === "companion" && countWords(doc) <= countWordsIn(chapterTitle(doc));
}

function idOfTop(doc: Node): string {
  return doc.firstChild!.attrs["id"] as string;
}
