import { checkBook, type BookFinding } from "@vennet/core/checks/check-book";
import { rules } from "@vennet/core/checks/check-chapter";
import { finishedForRules } from "@vennet/core/finished/parts";
import type { KnownOfBook } from "@vennet/core/checks/surroundings";
import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";

/** What the rules find in a whole book; with `only`, what the rule of that id does. */
export function run({
  book,
  known,
  only,
}: {
  book: PlainBook;
  known: KnownOfBook;
  only?: string;
}): BookFinding[] {
  const pages = known.keepsAnchors
    ? book.chapters.map(({ document }) => finishedForRules(JSON.parse(document)) ?? undefined)
    : undefined;
  return checkBook(
    bookOfPlain(book),
    pages ? { ...known, pages } : known,
    only === undefined ? rules : rules.filter(({ id }) => id === only),
  );
}
