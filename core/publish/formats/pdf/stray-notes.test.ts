import { expect, test } from "@jest/globals";
import { orderNotes, referenceId } from "../../../manuscript/notes.ts";
import { bookOf } from "../../../test/sample-book.ts";
import { keepNotes, type Keep } from "./stray-notes.ts";

/** A chapter with three notes, whose labels are its own. */
const chapter = (title: string): string => {
  const [post, box, bell] = ["post", "box", "bell"].map((name) => `[^${title}-${name}]`);
  return `# ${title}\n\nA post${post}, a box${box}, a bell${bell}.\n\n${post}: White.\n\n${box}: Dry.\n\n${bell}: Loud.`;
};
const book = bookOf(["Crossing", "Refuges", "Bells"].map(chapter).join("\n\n"));
const notes = book.chapters.map(({ doc }) => orderNotes(doc));
const [first, second, third] = notes as [string[], string[], string[]];

/** Places of a book in which each chapter stands on a page of its own, with these of its notes on the page after it. */
const placesWith = (...strays: string[]) =>
  notes.flatMap((ids, i) =>
    ids.flatMap((id) => [
      { id: referenceId(id, 1), page: 10 * i },
      { id, page: 10 * i + (strays.includes(id) ? 1 : 0) },
    ]),
  );
const asked = (keep: Keep, ids: readonly string[]): [string, Keep][] => ids.map((id) => [id, keep]);

test("all notes of a chapter with a stray are asked for lines, and none of a chapter without", () => {
  const before = new Map<string, Keep>();
  expect(keepNotes(book, placesWith(first[1]!, third[0]!), before)).toEqual(
    new Map([...asked("lines", first), ...asked("lines", third)]),
  );
  expect(before.size).toBe(0);
});

test("of each chapter that still has strays the first one goes to the next page, all in one round", () => {
  const before = new Map([...asked("lines", first), ...asked("lines", third)]);
  const after = keepNotes(book, placesWith(first[1]!, first[2]!, second[0]!, third[2]!), before)!;
  expect(after.get(first[1]!)).toBe("next-page");
  expect(after.get(first[2]!)).toBe("lines");
  expect(second.map((id) => after.get(id))).toEqual(["lines", "lines", "lines"]);
  expect(after.get(third[2]!)).toBe("next-page");
});

test("there is no more to ask where nothing strays, where all was asked, and where notes stand elsewhere", () => {
  expect(keepNotes(book, placesWith(), new Map())).toBeNull();
  const all = new Map(asked("next-page", first));
  expect(keepNotes(book, placesWith(first[0]!), all)).toBeNull();
  const apart = { ...book, conventions: { ...book.conventions, notesAt: "chapter" as const } };
  expect(keepNotes(apart, placesWith(first[0]!), new Map())).toBeNull();
});
