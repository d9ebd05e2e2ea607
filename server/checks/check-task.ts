import { checkBook, type BookFinding } from "@vennet/core/checks/check-book";
import { rules } from "@vennet/core/checks/check-chapter";
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
  return checkBook(
    bookOfPlain(book),
    known,
    only === undefined ? rules : rules.filter(({ id }) => id === only),
  );
}
