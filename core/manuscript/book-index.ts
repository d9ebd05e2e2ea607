import type { ApparatusWords } from "./apparatus-words.ts";
import { bookWords } from "./book-words.ts";
import type { ChapterRole } from "./chapter-role.ts";
import type { Conventions, CountedBy } from "./conventions.ts";
import { languageDirection, type Direction } from "./direction.ts";
import { HeadingLevels, type Place } from "./outline.ts";

/** The id of the top of the book, which is a landing place of every book. */
export const topOfBook = "book-top";

/** A landing place with what the whole book makes of it. */
export interface IndexedPlace extends Place {
  /** The index of its chapter; -1 for the top of the book. */
  chapter: number;
  /** Its place among all places of the book, in reading order. */
  order: number;
  /** Its number without any word, as “2.3”; null where the book gives it none. */
  number: string | null;
  /** What a reader is shown of it. An anchor's name is the author's own matter: the words that stand there. */
  words: string;
}

/** What the index is made from: the places of each chapter, in reading order. */
export interface PlacesOfChapter {
  role: ChapterRole;
  places: readonly Place[];
}

const anchorWords = 60;

/**
 * All landing places of a book with their numbers, counted afresh from the places of its chapters. Equal
 * ids belong to the first place that has them.
 */
export class BookIndex {
  readonly places: ReadonlyMap<string, IndexedPlace>;
  /** The same places in reading order. */
  readonly inOrder: readonly IndexedPlace[];
  readonly words: ApparatusWords;
  /** In which direction the book is read. */
  readonly direction: Direction;
  /** The indexes of the pages outside the reading order. */
  readonly companions: ReadonlySet<number>;
  /** The indexes of the parts. */
  readonly parts: ReadonlySet<number>;
  private readonly roles: readonly ChapterRole[];
  // Looked for when they are asked for: most indexes are made for the numbers alone.
  private foundLists: readonly IndexedPlace[] | null = null;
  private foundTitles: ReadonlyMap<number, IndexedPlace> | null = null;

  constructor(
    chapters: readonly PlacesOfChapter[],
    readonly conventions: Conventions,
    book: { title: string; language: string },
  ) {
    this.words = bookWords(book.language);
    this.direction = languageDirection(book.language);
    this.roles = chapters.map(({ role }) => role);
    this.companions = new Set(chapters.flatMap(({ role }, i) => (role === "companion" ? [i] : [])));
    this.parts = new Set(chapters.flatMap(({ role }, i) => (role === "part" ? [i] : [])));
    const inOrder: IndexedPlace[] = [top(book.title)];
    const count = new Counts(conventions);
    chapters.forEach(({ role, places }, chapter) => {
      count.beginChapter(role);
      for (const place of countedIn(places, chapter, inOrder.length, count)) inOrder.push(place);
    });
    this.inOrder = inOrder;
    const byId = new Map<string, IndexedPlace>();
    for (const place of inOrder) if (!byId.has(place.id)) byId.set(place.id, place);
    this.places = byId;
  }

  /** The signpost lists among the places. */
  get lists(): readonly IndexedPlace[] {
    return (this.foundLists ??= this.inOrder.filter(({ list }) => list !== null));
  }

  /** The title of each chapter that has one, by its index, and of the book at -1. */
  get titles(): ReadonlyMap<number, IndexedPlace> {
    return (this.foundTitles ??= new Map(
      this.inOrder.filter(({ kind }) => kind === "title").map((place) => [place.chapter, place]),
    ));
  }

  roleOf(chapter: number): ChapterRole {
    return this.roles[chapter] ?? "chapter";
  }

  /** Whether a chapter belongs to a part. */
  isInPart(chapter: number): boolean {
    if (this.parts.has(chapter) || this.companions.has(chapter)) return false;
    for (const part of this.parts) if (part < chapter) return true;
    return false;
  }

  /** The number with the word for what it counts: “Figure 3”, “2.3”; null where it has none. */
  labelOf({ kind, number }: IndexedPlace): string | null {
    if (number === null) return null;
    return kind === "figure" || kind === "table" ? `${this.words[kind]} ${number}` : number;
  }
}

/** What was made of a chapter's places last, from where counting stood before it, and where it stood behind it. */
interface CountedChapter {
  before: string;
  after: Counted;
  places: readonly IndexedPlace[];
}

const countedLast = new WeakMap<readonly Place[], CountedChapter>();

/** A chapter's places with their numbers; those that they had last where nothing before them has changed since. */
function countedIn(
  places: readonly Place[],
  chapter: number,
  firstOrder: number,
  count: Counts,
): readonly IndexedPlace[] {
  const before = `${chapter} ${firstOrder} ${count.standing()}`;
  const last = countedLast.get(places);
  if (last?.before === before) {
    count.goOnFrom(last.after);
    return last.places;
  }
  const counted = places.map((place, i): IndexedPlace => {
    const number = count.numberOf(place);
    const words = place.kind === "anchor" ? wordsAt(place.context) : place.text;
    return { ...place, chapter, order: firstOrder + i, number, words };
  });
  countedLast.set(places, { before, after: count.counted(), places: counted });
  return counted;
}

/** What counting hands on from one chapter to the next. */
interface Counted {
  figure: number;
  table: number;
  notesHere: number;
}

/** Runs through a book's places and counts what its conventions count. */
class Counts {
  private chapter = 0;
  private isChapter = true;
  private headings: number[] = [];
  private levels = new HeadingLevels();
  /** The number of the heading that a place stands under. */
  private under: string | null = null;
  private figures = { figure: 0, table: 0 };
  private notesBefore = 0;
  private notesHere = 0;

  constructor(private readonly conventions: Conventions) {}

  beginChapter(role: ChapterRole): void {
    // A part has the title that its author gives it: chapters are counted through all parts, and past the unnumbered.
    this.isChapter = role === "chapter";
    if (this.isChapter) this.chapter++;
    this.headings = [];
    this.levels = new HeadingLevels();
    this.under = null;
    if (this.conventions.figures === "chapter") this.figures.figure = 0;
    if (this.conventions.tables === "chapter") this.figures.table = 0;
    this.notesBefore += this.notesHere;
    this.notesHere = 0;
  }

  /** All on which the numbers of the chapter that begins depend. */
  standing(): string {
    const { headings, figures, tables, notes } = this.conventions;
    const { figure, table } = this.figures;
    const by = `${headings} ${figures} ${tables} ${notes}`;
    return `${by} ${this.isChapter} ${this.chapter} ${figure} ${table} ${this.notesBefore}`;
  }

  counted(): Counted {
    return { ...this.figures, notesHere: this.notesHere };
  }

  goOnFrom({ figure, table, notesHere }: Counted): void {
    this.figures = { figure, table };
    this.notesHere = notesHere;
  }

  numberOf(place: Place): string | null {
    switch (place.kind) {
      case "title":
      case "heading":
        return (this.under = this.heading(place));
      case "figure":
        return this.caption("figure", this.conventions.figures);
      case "table":
        return this.caption("table", this.conventions.tables);
      case "note":
        this.notesHere++;
        return String(place.ordinal! + (this.conventions.notes === "book" ? this.notesBefore : 0));
      case "anchor":
        return this.under;
      case "signposts":
        return null;
    }
  }

  /** Chapters are counted through the book, headings within what they stand under, if that has one. */
  private heading({ level, text }: Place): string | null {
    if (text === "") return null;
    const depth = this.levels.next(level!);
    this.headings = this.headings.slice(0, depth);
    this.headings[depth - 1] = depth === 1 ? this.chapter : (this.headings[depth - 1] ?? 0) + 1;
    return this.isChapter && depth <= this.conventions.headings ? this.headings.join(".") : null;
  }

  private caption(of: "figure" | "table", by: CountedBy | null): string | null {
    if (by === null) return null;
    const number = ++this.figures[of];
    return by === "chapter" && this.isChapter ? `${this.chapter}.${number}` : String(number);
  }
}

function top(title: string): IndexedPlace {
  return {
    id: topOfBook,
    kind: "title",
    level: null,
    text: title,
    context: "",
    position: 0,
    ordinal: null,
    note: null,
    list: null,
    chapter: -1,
    order: 0,
    number: null,
    words: title,
  };
}

/** The first sentence, or as many whole words of it as fit. */
function wordsAt(context: string): string {
  const sentence = /^.*?[.!?](?=\s|$)/.exec(context)?.[0].replace(/\.$/, "") ?? context;
  if (sentence.length <= anchorWords) return sentence;
  return `${sentence.slice(0, anchorWords).replace(/\s+\S*$/, "")} …`;
}
