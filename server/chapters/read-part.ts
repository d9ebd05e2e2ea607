import { FinishedPage } from "@vennet/core/finished/pdf/finished-page";
import { readPdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";

/** A part of a publication, whatever the publication is: a chapter of a manuscript, or a page of a finished file. */
export type AnyPart = ManuscriptChapter | FinishedPage;

/**
 * Reads a part as it is kept, and judges it.
 * @param text its content as JSON
 * @throws ManuscriptError or FinishedError where it is none
 */
export function readPart(text: string): AnyPart {
  const json = JSON.parse(text) as { type?: unknown };
  return isPage(json) ? new FinishedPage(readPdfPage(json)) : new ManuscriptChapter(readChapter(json));
}

function isPage(json: { type?: unknown }): boolean {
  return json.type === "pdf-page";
}
