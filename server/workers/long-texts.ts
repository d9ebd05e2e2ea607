/** Texts of more letters together than this are worked at in a process: it would hold everybody up here. */
const manyLetters = 200_000;

/** How many letters the documents of some chapters have together. */
export function lettersOf(chapters: readonly { document: string }[]): number {
  return chapters.reduce((sum, { document }) => sum + document.length, 0);
}

/** Whether so many letters are many. */
export function isLong(letters: number): boolean {
  return letters > manyLetters;
}

/** The lane in which a book with these chapters is exported. */
export function exportLane(chapters: readonly { document: string }[]): "exportBook" | "exportLongBook" {
  return isLong(lettersOf(chapters)) ? "exportLongBook" : "exportBook";
}
