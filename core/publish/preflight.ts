import { checkBook, nothingKnown } from "../checks/check-book.ts";
import { rules } from "../checks/check-chapter.ts";
import type { Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";

/** Something in the book that stops an export, with where it stands and what to do. */
export interface Obstacle {
  code: "no-chapters" | "no-title" | "picture-alternative" | "empty-title" | "finding" | "long-word";
  chapter: string | null;
  message: string;
}

const graveRules = rules.filter(({ severity }) => severity === "stop");

/**
 * What would stop an export, found before the typesetter is asked. `accessible` asks for what PDF/UA-1
 * (ISO 14289-1, 7.3) wants besides: a text alternative for every picture that is not decorative.
 */
export function findObstacles(book: Book, accessible: boolean): Obstacle[] {
  const obstacles: Obstacle[] = [];
  if (book.title.trim() === "") {
    obstacles.push({
      code: "no-title",
      chapter: null,
      message: "The book has no title. Give it one on the Shelf.",
    });
  }
  if (book.chapters.length === 0) {
    obstacles.push({
      code: "no-chapters",
      chapter: null,
      message: "The book has no chapter yet. Write one first.",
    });
  }
  book.chapters.forEach(({ doc }, i) => {
    const chapter = chapterTitle(doc);
    if (chapter === "") {
      obstacles.push({
        code: "empty-title",
        chapter,
        message: `Chapter ${i + 1} has no title. The contents list needs one.`,
      });
    }
    doc.descendants((node) => {
      if (!accessible || node.type.name !== "picture") return;
      const { alt, decorative, source, file } = pictureAttrs(node);
      if (file !== null && alt.trim() === "" && !decorative) {
        obstacles.push({
          code: "picture-alternative",
          chapter,
          message: `Chapter “${chapter}”: the picture ${source ? `“${source}” ` : ""}has no text alternative. Select it and say what it shows, or mark it as decorative.`,
        });
      }
    });
  });
  for (const { severity, chapter, link, message } of checkBook(book, nothingKnown, graveRules)) {
    if (severity !== "stop" || chapter === null) continue;
    const title = chapterTitle(book.chapters[chapter]!.doc);
    obstacles.push({
      code: "finding",
      chapter: title,
      message: `Chapter “${title}”${link ? `, the link “${link.text}”` : ""}: ${message}`,
    });
  }
  return obstacles;
}
