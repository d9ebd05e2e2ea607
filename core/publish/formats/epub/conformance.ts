import { checkBook } from "../../../checks/check-book.ts";
import { nothingKnown } from "../../../checks/surroundings.ts";
import { rules } from "../../../checks/check-chapter.ts";
import { picturesIn, type Book } from "../../../manuscript/book.ts";

/** What an e-book says that it conforms to (EPUB Accessibility 1.1, 4.4). */
export const conformsTo = "EPUB Accessibility 1.1 - WCAG 2.2 Level AA";

const ofWcag = rules.filter(({ source, severity }) => source.startsWith("WCAG") && severity !== "consider");

/**
 * Whether a book has earned that claim, as far as a program can tell: every picture has a text alternative or is
 * decorative, every table says what its rows or columns are, every chapter has a title, and no check that rests on
 * WCAG finds anything to fix in its links, pictures and looks.
 */
export function hasEarnedConformance(book: Book): boolean {
  const described = picturesIn(book).every(
    ({ file, alt, decorative }) => decorative || (file !== null && alt.trim() !== ""),
  );
  return (
    described &&
    book.chapters.every(({ doc }) => doc.firstChild!.textContent.trim() !== "" && hasTableHeads(doc)) &&
    checkBook(book, nothingKnown, ofWcag).every(
      ({ severity, source }) => severity === "consider" || !source.startsWith("WCAG"),
    )
  );
}

function hasTableHeads(doc: Book["chapters"][number]["doc"]): boolean {
  let allHave = true;
  doc.descendants((node) => {
    if (node.type.name !== "table") return allHave;
    let heads = 0;
    node.descendants((cell) => {
      if (cell.type.name !== "table_header") return true;
      heads++;
      // A head without words tells nothing of its column.
      if (cell.textContent.trim() === "") allHave = false;
      return false;
    });
    if (heads === 0) allHave = false;
    return false;
  });
  return allHave;
}
