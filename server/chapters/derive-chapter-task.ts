import { readChapter } from "@vennet/core/manuscript/chapter";
import { deriveChapter, type DerivedChapter } from "./derived-chapter.ts";

/**
 * Judges a text that somebody sent, and derives what is to be kept of it.
 * @param text a chapter's document as JSON
 * @throws ManuscriptError where it is no chapter
 */
export function run(text: string): DerivedChapter {
  return deriveChapter(readChapter(JSON.parse(text)));
}
