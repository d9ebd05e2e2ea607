/** Through what a count runs before it begins at 1 again. */
export type CountedBy = "chapter" | "book";

/** What a book counts, and where its notes stand. */
export interface Conventions {
  /** How many levels of headings carry a number: 0 for none, 1 for chapters alone, up to 5. */
  headings: number;
  /** Whether and how captions carry a number; null for none. */
  figures: CountedBy | null;
  tables: CountedBy | null;
  notes: CountedBy;
  /** Where notes stand in a book that has pages; in one that has none, a page's notes follow its chapter. */
  notesAt: "page" | "chapter" | "book";
  /** The words of the link from a note back to the text; an arrow has a name for screen readers besides. */
  returnWords: string;
}

export const defaultConventions: Conventions = {
  headings: 0,
  figures: "book",
  tables: "book",
  notes: "chapter",
  notesAt: "page",
  returnWords: "↩",
};

/**
 * Says whether a value read from outside is a book's conventions.
 * @throws RangeError with what is wrong
 */
export function assertConventions(value: unknown): asserts value is Conventions {
  const given = (value ?? {}) as Record<string, unknown>;
  const isCount = (count: unknown): boolean => count === "chapter" || count === "book";
  const { headings, figures, tables, notes, notesAt, returnWords } = given;
  if (!Number.isInteger(headings) || (headings as number) < 0 || (headings as number) > 5)
    throw new RangeError("From 0 to 5 levels of headings can be numbered.");
  if ((figures !== null && !isCount(figures)) || (tables !== null && !isCount(tables)) || !isCount(notes))
    throw new RangeError("What is counted is counted by chapter or through the book.");
  if (notesAt !== "page" && notesAt !== "chapter" && notesAt !== "book")
    throw new RangeError("Notes stand at the end of the page, of the chapter or of the book.");
  if (typeof returnWords !== "string" || returnWords.trim() === "" || returnWords.length > 60)
    throw new RangeError("The way back from a note needs a sign or up to 60 letters.");
}
