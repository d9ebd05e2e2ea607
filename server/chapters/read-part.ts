import { readFinishedPart } from "@vennet/core/finished/parts";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { mayHoldUnwritable, writableValue } from "@vennet/core/manuscript/writable-text";
import type { LinkedPart } from "@vennet/core/publication/linked-part";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";

/** A part of a publication, whatever the publication is: a chapter of a manuscript, or a page of a finished file. */
export type AnyPart = ManuscriptChapter | LinkedPart<unknown>;

/**
 * Reads a part as it is kept or sent, and judges it. Of a chapter, signs that no file can hold are left out.
 * @param text its content as JSON
 * @throws ManuscriptError or FinishedError where it is none
 */
export function readPart(text: string): AnyPart {
  const json: unknown = JSON.parse(text);
  return readFinishedPart(json) ?? new ManuscriptChapter(readChapter(writableJson(text, json)));
}

/** What is kept of a chapter, as JSON to be sent; one from before may hold signs that no file can. */
export function chapterJson(text: string): Record<string, unknown> {
  const json = JSON.parse(text) as Record<string, unknown>;
  return json["type"] === "doc" ? writableJson(text, json) : json;
}

function writableJson<T>(text: string, json: T): T {
  return mayHoldUnwritable(text) ? writableValue(json) : json;
}
