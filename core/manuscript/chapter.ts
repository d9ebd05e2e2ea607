import { Node } from "prosemirror-model";
import { deepestNest, wordsTooDeep } from "./depth.ts";
import { ManuscriptError } from "./errors.ts";
import { newId } from "./ids.ts";
import { schema } from "./schema.ts";

/** A document as it is stored and sent: ProseMirror's JSON of one chapter. */
export type ChapterJson = { type: "doc"; content: unknown[] };

/**
 * Reads a chapter's JSON, whoever sent it.
 * @throws ManuscriptError `document` where it does not fit the schema or holds an unsafe destination; `too-deep`
 * where its elements lie in each other deeper than a chapter may have them
 */
export function readChapter(json: unknown): Node {
  const tooDeep = wordsTooDeep(json);
  if (tooDeep !== null) {
    throw new ManuscriptError(
      "too-deep",
      `Lists, quotes or tables lie within each other more than ${deepestNest} deep, which no page can hold${tooDeep && `: “${tooDeep}”`}. Take some of them out of the others.`,
    );
  }
  try {
    const doc = schema.nodeFromJSON(json);
    doc.check();
    if (doc.type !== schema.topNodeType) throw new RangeError("The top node is not a chapter.");
    return doc;
  } catch (error) {
    throw new ManuscriptError(
      "document",
      `This is not a chapter that can be kept: ${(error as Error).message}`,
    );
  }
}

/** Writes a chapter as plain JSON. */
export function writeChapter(doc: Node): ChapterJson {
  return doc.toJSON() as ChapterJson;
}

/** A new chapter: a title and one empty paragraph. */
export function emptyChapter(title: string): Node {
  return schema.node("doc", null, [
    schema.node("title", { id: newId() }, title === "" ? [] : [schema.text(title)]),
    schema.node("paragraph"),
  ]);
}

/** The chapter's title as plain words. */
export function chapterTitle(doc: Node): string {
  return doc.firstChild!.textContent.trim();
}

/** The same chapter with another title. Marks that cover the whole old title stay on the new words. */
export function withTitle(doc: Node, title: string): Node {
  const old = doc.firstChild!;
  const marks = old.childCount === 1 ? old.firstChild!.marks : [];
  const replaced = old.copy(
    schema.node("title", old.attrs, title === "" ? [] : [schema.text(title, marks)]).content,
  );
  return doc.copy(doc.content.replaceChild(0, replaced));
}

/** How many words the chapter has, its title and notes included. */
export function countWords(doc: Node): number {
  return countWordsIn(doc.textBetween(0, doc.content.size, " ", " "));
}

/** How many words a text has. */
export function countWordsIn(text: string): number {
  return text.match(/[\p{L}\p{N}]+(?:['’.-][\p{L}\p{N}]+)*/gu)?.length ?? 0;
}
