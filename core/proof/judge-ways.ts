import { chapterTitle } from "../manuscript/chapter.ts";
import type { Book } from "../manuscript/book.ts";
import type { Fault, ReadPage } from "./exported-link.ts";
import { lettersOf } from "./letters.ts";

const back = /^[←‹«]/u;
const on = /[→›»]$/u;

/**
 * What is wrong with the ways by which a reader goes from page to page: from each chapter to the one before and the one
 * after, called by their titles, and from every page to the list of contents.
 */
export function judgeWays(book: Book, pages: readonly ReadPage[]): Fault[] {
  if (pages.length === 0) return [];
  const titles = book.chapters.map(({ doc }) => doc.firstChild!.attrs["id"] as string);
  const chapterOn = new Map(
    pages.map(({ path, places }) => [path, titles.findIndex((id) => places.has(id))] as const),
  );
  const isInOrder = (i: number): boolean => (book.chapters[i]?.role ?? "companion") !== "companion";
  const contents = pages
    .filter(({ path }) => chapterOn.get(path) !== -1)
    .flatMap(({ ways }) => ways.map(({ opens }) => opens))
    .find((opens) => opens !== null && chapterOn.get(opens) === -1);
  return pages.flatMap(({ path, ways }): Fault[] => {
    const chapter = chapterOn.get(path)!;
    const told: Fault[] = [];
    const tell = (what: string): void => void told.push({ where: path, what });
    const opened = ways.map(({ words, opens }) => ({
      words,
      chapter: opens === null ? null : (chapterOn.get(opens) ?? null),
    }));
    if (chapter === -1) {
      // A page of notes leads to the contents alone.
      if (path !== contents && (ways.length !== 1 || ways[0]!.opens !== contents))
        tell("It has not one way back to the list of contents.");
      return told;
    }
    if (opened.filter((way) => way.chapter === -1).length !== 1)
      tell("It has not one way back to the list of contents.");
    const wanted = isInOrder(chapter) ? [chapter - 1, chapter + 1].filter(isInOrder) : [];
    const found = opened.filter((way) => way.chapter !== -1);
    if (found.map((way) => way.chapter).join() !== wanted.join())
      tell("Its ways on do not lead to the chapters before and after it.");
    for (const { words, chapter: to } of found) {
      if (to === null) continue;
      const title = chapterTitle(book.chapters[to]!.doc);
      const isTurned = to < chapter ? on.test(words) : back.test(words);
      if (isTurned || named(words) !== named(title)) tell(`The way on to “${title}” is called “${words}”.`);
    }
    return told;
  });
}

/** A way's words without its arrow. */
function named(words: string): string {
  return lettersOf(words.replace(back, "").replace(on, ""));
}
