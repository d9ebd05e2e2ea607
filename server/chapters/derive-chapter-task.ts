import { derivePart, type DerivedChapter } from "./derived-chapter.ts";
import { readPart } from "./read-part.ts";

/**
 * Judges a text that somebody sent, and derives what is to be kept of it.
 * @param text a chapter's document, or a page's links, as JSON
 * @throws ManuscriptError or FinishedError where it is none
 */
export function run(text: string): DerivedChapter {
  return derivePart(readPart(text));
}
