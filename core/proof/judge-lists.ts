import { literalPattern } from "../manuscript/literal-pattern.ts";
import type { BookIndex } from "../manuscript/book-index.ts";
import type { Book } from "../manuscript/book.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { hasOwnContents } from "../manuscript/signposts.ts";
import type { Fault, ReadEntry, ReadList } from "./exported-link.ts";
import { landingWords, landsAt } from "./landing.ts";
import { lettersOf } from "./letters.ts";
import { nodeAt } from "../manuscript/positions.ts";

/** One entry that a list ought to have. */
interface Wanted {
  /** The place's id; null for what has none in the manuscript. */
  id: string | null;
  words: string;
  /** Its words between what is no word of it: a reference, a note, a picture; some lists show those. */
  pieces: readonly string[];
  landing: string | null;
}

/**
 * What is wrong with the lists by which a reader finds the way: an entry for each title and heading down to a level, in
 * their order, with their words, that leads there; then the pages outside the reading order, where a list has them.
 */
export function judgeLists(
  book: Book,
  index: BookIndex,
  lists: readonly ReadList[],
  isPaged: boolean,
): Fault[] {
  return lists.flatMap(({ name, levels, isAsShown, hasCompanions, isOwn, entries }): Fault[] => {
    if (entries.length === 0 && !isOwn && hasOwnContents(book)) return [];
    const wanted = wantedOf(book, index, { levels, isAsShown, isPaged, isCompanion: false });
    const companions = wantedOf(book, index, {
      levels: isAsShown ? levels : 1,
      isAsShown,
      isPaged,
      isCompanion: true,
    });
    const faults: Fault[] = [];
    const tell = (what: string): void => void faults.push({ where: name, what });
    const said = entries.map(({ words }) => lettersOf(words));
    const known = [book.title, ...Object.values(index.words)].filter((one) => typeof one === "string");
    const saysKnown = known.map((one) => saying({ words: one, pieces: [one] }, isPaged));
    let next = 0;
    const notes = isPaged ? notesOf(index) : [];
    for (const one of [...wanted, ...(hasCompanions ? companions : []), ...notes]) {
      const says = saying(one, isPaged);
      const at = firstFrom(said, next, says);
      if (at === -1) {
        tell(`“${one.words}” is not in it where it should be.`);
        continue;
      }
      for (let passed = next; passed < at; passed++) judgeOther(passed);
      next = at + 1;
      const { targets } = entries[at]!;
      const isThere =
        !targets.some((id) => index.places.has(id)) || (one.id !== null && targets.includes(one.id));
      if (!isThere || !landsAt(one.landing, entries[at]!, isPaged)) tell(`“${one.words}” leads elsewhere.`);
    }
    for (let left = next; left < entries.length; left++) judgeOther(left);
    return faults;

    /** What is neither a chapter nor a heading: the book's title, its notes and the like. */
    function judgeOther(at: number): void {
      const { words, landing } = entries[at]!;
      if (!saysKnown.some((says) => says(said[at]!))) tell(`“${words}” is in it, and in no heading.`);
      else if (landing === null) tell(`“${words}” leads nowhere.`);
    }
  });
}

/** What is wrong with a list of pages: an entry for each page that begins in the text, by its number, that leads there. */
export function judgePageList(breaks: ReadonlyMap<string, string>, entries: readonly ReadEntry[]): Fault[] {
  const where = "The list of pages";
  const wrong = entries.filter(({ targets, words }) => breaks.get(targets[0] ?? "") !== words);
  const listed = new Set(entries.flatMap(({ targets }) => targets));
  return [
    ...wrong.map(({ words }): Fault => ({ where, what: `Page ${words} leads elsewhere.` })),
    ...[...breaks].flatMap(([id, label]): Fault[] =>
      listed.has(id) ? [] : [{ where, what: `Page ${label} is not in it.` }],
    ),
  ];
}

function wantedOf(
  book: Book,
  index: BookIndex,
  which: { levels: number; isAsShown: boolean; isPaged: boolean; isCompanion: boolean },
): Wanted[] {
  const shown = new HeadingLevels();
  return index.inOrder.flatMap((place): Wanted[] => {
    if (place.chapter === -1 || place.level === null || place.words === "") return [];
    const level = which.isAsShown ? shown.next(place.level) - 1 : place.level;
    const isListed = index.companions.has(place.chapter) === which.isCompanion && level < which.levels;
    if (!isListed || index.places.get(place.id) !== place) return [];
    const { doc } = book.chapters[place.chapter]!;
    const label = index.labelOf(place);
    const words = label === null ? place.words : `${label} ${place.words}`;
    const pieces = [label === null ? "" : `${label} `];
    for (const { isText, text, type } of nodeAt(doc, place.position)!.children)
      if (isText) pieces.push(pieces.pop()! + text!);
      else if (type.name !== "anchor") pieces.push("");
    return [{ id: place.id, words, pieces, landing: landingWords(place, doc, which.isPaged) }];
  });
}

/** The entry of all notes, where they stand at the end of a book with pages. */
function notesOf({ conventions, inOrder, words }: BookIndex): Wanted[] {
  const hasNotes = conventions.notesAt === "book" && inOrder.some(({ kind }) => kind === "note");
  return hasNotes ? [{ id: null, words: words.notes, pieces: [words.notes], landing: words.notes }] : [];
}

/** The first from an index on of which something is true; -1 for none. */
function firstFrom<T>(all: readonly T[], from: number, isTrue: (one: T) => boolean): number {
  for (let at = from; at < all.length; at++) if (isTrue(all[at]!)) return at;
  return -1;
}

/** In Arabic or Roman digits, or none. */
const numberOfPage = "[\\p{N}ivxlcdm]*$";
const isNumberOfPage = new RegExp(`^${numberOfPage}`, "u");

/**
 * Whether the letters of an entry say the words of a heading. In a PDF the number of its page stands behind it. What is no
 * word of a heading, a reference or a picture, is shown by some lists.
 */
function saying(
  { words, pieces }: Pick<Wanted, "words" | "pieces">,
  isPaged: boolean,
): (letters: string) => boolean {
  if (!isPaged) {
    const wanted = lettersOf(words);
    return (letters) => letters === wanted;
  }
  const [first = "", ...more] = pieces.map(lettersOf);
  if (more.length === 0)
    return (letters) => letters.startsWith(first) && isNumberOfPage.test(letters.slice(first.length));
  const literal = [first, ...more].map(literalPattern);
  const wanted = new RegExp(`^${literal.join(".*")}${numberOfPage}`, "u");
  return (letters) => wanted.test(letters);
}
