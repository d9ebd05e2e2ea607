import { checkBook } from "../checks/check-book.ts";
import { rules } from "../checks/check-chapter.ts";
import { nothingKnown } from "../checks/surroundings.ts";
import type { Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import type { Foreseen } from "./export-warning.ts";
import { pictureAttrs } from "../manuscript/attributes.ts";

/** Something in the book that stops an export, with where it stands and what to do; its message goes on behind the name of its chapter. */
export interface Obstacle extends Foreseen {
  code: "no-chapters" | "no-title" | "picture-alternative" | "empty-title" | "finding" | "long-word";
  chapter: string | null;
  message: string;
  /** The rule that can mend it by one press, and the link at which; left out where none can. */
  mend?: { rule: string; linkId: string };
}

/** All that is to be said of an obstacle where nothing else tells its chapter. */
export function obstacleWords({ chapter, message }: Obstacle): string {
  return chapter ? `Chapter “${chapter}”: ${message}` : message;
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
      at: null,
      message: "The book has no title. Give it one on the Shelf.",
    });
  }
  if (book.chapters.length === 0) {
    obstacles.push({
      code: "no-chapters",
      chapter: null,
      at: null,
      message: "The book has no chapter yet. Write one first.",
    });
  }
  book.chapters.forEach(({ doc }, i) => {
    const chapter = chapterTitle(doc);
    if (chapter === "") {
      obstacles.push({
        code: "empty-title",
        chapter,
        at: { chapter: i, from: 1, to: 1 },
        message: `Chapter ${i + 1} has no title. The contents list needs one.`,
      });
    }
    doc.descendants((node, from) => {
      if (!accessible || node.type.name !== "picture") return;
      const { alt, decorative, source, file } = pictureAttrs(node);
      if (file !== null && alt.trim() === "" && !decorative) {
        obstacles.push({
          code: "picture-alternative",
          chapter,
          at: { chapter: i, from, to: from + node.nodeSize },
          message: `the picture ${source ? `“${source}” ` : ""}has no text alternative. Select it and say what it shows, or mark it as decorative.`,
        });
      }
    });
  });
  for (const { rule, severity, chapter, link, message, mend } of checkBook(book, nothingKnown, graveRules)) {
    if (severity !== "stop" || chapter === null) continue;
    const title = chapterTitle(book.chapters[chapter]!.doc);
    obstacles.push({
      code: "finding",
      chapter: title,
      at: link && { chapter, from: link.from, to: link.to },
      message: link ? `the link “${link.text}”: ${message}` : message,
      ...(link && mend ? { mend: { rule, linkId: link.id } } : {}),
    });
  }
  return obstacles;
}
