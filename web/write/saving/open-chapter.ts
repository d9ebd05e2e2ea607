import { readChapter, writeChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";
import { mergeTexts } from "@vennet/core/manuscript/merge-texts";
import { chapterOf } from "../../api/chapter-of";
import type { Chapter } from "../../api/client";
import { dropDraft, readDraft } from "./drafts";

/** A chapter as it is to be shown: the server's text, this browser's unsent one, or both. */
export type OpenedChapter =
  | {
      kind: "text";
      document: ChapterJson;
      revision: number;
      /** What the server has under that revision. */
      base: ChapterJson;
      unsent: boolean;
    }
  | { kind: "conflict"; mine: ChapterJson; theirs: Chapter };

/** Reads a chapter, and puts to it what this browser has kept of it and never sent. */
export async function openChapter(bookId: string, chapterId: string): Promise<OpenedChapter> {
  const theirs = await chapterOf(bookId, chapterId);
  const document = theirs.document as unknown as ChapterJson;
  const draft = await readDraft(chapterId);
  const { revision } = theirs;
  const asSaved: OpenedChapter = { kind: "text", document, revision, base: document, unsent: false };
  if (!draft) return asSaved;
  if (JSON.stringify(draft.document) === JSON.stringify(document)) {
    await dropDraft(chapterId);
    return asSaved;
  }
  if (draft.revision === revision) return { ...asSaved, document: draft.document, unsent: true };
  const merged =
    draft.base && mergeTexts(readChapter(draft.base), readChapter(draft.document), readChapter(document));
  if (merged) return { ...asSaved, document: writeChapter(merged), unsent: true };
  return { kind: "conflict", mine: draft.document, theirs };
}
