import { answerOf, api, type Chapter } from "./client";

/** Answers that were asked for before anybody wanted them, each for who comes first. */
const asked = new Map<string, Promise<Chapter>>();

/** Asks for a chapter that will soon be opened. */
export function askForChapter(bookId: string, chapterId: string): void {
  const answer = chapterOf(bookId, chapterId);
  // What was refused may be given later, as to who signs in.
  answer.catch(() => asked.delete(chapterId));
  asked.set(chapterId, answer);
}

/** A chapter with its text, as the server has it now. */
export function chapterOf(bookId: string, chapterId: string): Promise<Chapter> {
  const early = asked.get(chapterId);
  asked.delete(chapterId);
  return (
    early ??
    answerOf(api.GET("/api/books/{bookId}/chapters/{chapterId}", { params: { path: { bookId, chapterId } } }))
  );
}
