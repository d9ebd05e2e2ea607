import type { ChapterJson } from "@vennet/core/manuscript/chapter";
import { answerOf, api, type Chapter } from "../../api/client";
import { dropDraft, readDraft } from "./drafts";

/** A chapter as it is to be shown: the server's text, this browser's unsent one, or both. */
export type OpenedChapter =
  | { kind: "text"; document: ChapterJson; revision: number; unsent: boolean }
  | { kind: "conflict"; mine: ChapterJson; theirs: Chapter };

/** Reads a chapter, and puts to it what this browser has kept of it and never sent. */
export async function openChapter(bookId: string, chapterId: string): Promise<OpenedChapter> {
  const theirs = await answerOf(
    api.GET("/api/books/{bookId}/chapters/{chapterId}", { params: { path: { bookId, chapterId } } }),
  );
  const document = theirs.document as unknown as ChapterJson;
  const draft = await readDraft(chapterId);
  if (!draft) return { kind: "text", document, revision: theirs.revision, unsent: false };
  if (JSON.stringify(draft.document) === JSON.stringify(document)) {
    await dropDraft(chapterId);
    return { kind: "text", document, revision: theirs.revision, unsent: false };
  }
  if (draft.revision === theirs.revision) {
    return { kind: "text", document: draft.document, revision: theirs.revision, unsent: true };
  }
  return { kind: "conflict", mine: draft.document, theirs };
}
