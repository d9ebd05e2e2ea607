import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { generatedBook } from "../test/generated-book.ts";
import { checkBook } from "./check-book.ts";
import { checkChapter } from "./check-chapter.ts";
import { contextIn, nothingKnown, surroundingsOf, withOpenChapter } from "./surroundings.ts";

/** What somebody who has a chapter open is told of its book: all but that chapter. */
function beside(book: Parameters<typeof checkBook>[0], chapter: number) {
  const all = surroundingsOf(book, nothingKnown);
  const others = surroundingsOf(
    { ...book, chapters: book.chapters.filter((_, i) => i !== chapter) },
    nothingKnown,
  );
  const { role } = book.chapters[chapter]!;
  return {
    ...others,
    chapters: all.chapters.map((one, i) => (i === chapter ? { role, places: [] } : one)),
  };
}

test("an open chapter gets the findings that the whole book gets there", () => {
  let found = 0;
  fc.assert(
    fc.property(generatedBook, (book) => {
      const whole = checkBook(book);
      book.chapters.forEach(({ doc }, chapter) => {
        const open = checkChapter(
          doc,
          contextIn(withOpenChapter(beside(book, chapter), chapter, doc), chapter),
        );
        const there = whole.filter((finding) => finding.chapter === chapter);
        found += there.length;
        const told = ({ rule, subject, message }: { rule: string; subject: string; message: string }) =>
          `${rule} ${subject} ${message}`;
        expect(open.map(told).sort()).toEqual(there.map(told).sort());
      });
    }),
    { numRuns: 100 },
  );
  expect(found).toBeGreaterThan(100);
});
