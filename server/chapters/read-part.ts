import { readFinishedPart } from "@vennet/core/finished/parts";
import { readChapter } from "@vennet/core/manuscript/chapter";
import type { LinkedPart } from "@vennet/core/publication/linked-part";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";

/** A part of a publication, whatever the publication is: a chapter of a manuscript, or a page of a finished file. */
export type AnyPart = ManuscriptChapter | LinkedPart<unknown>;

/**
 * Reads a part as it is kept, and judges it.
 * @param text its content as JSON
 * @throws ManuscriptError or FinishedError where it is none
 */
export function readPart(text: string): AnyPart {
  const json: unknown = JSON.parse(text);
  return readFinishedPart(json) ?? new ManuscriptChapter(readChapter(json));
}
