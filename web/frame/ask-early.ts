import type { QueryClient } from "@tanstack/react-query";
import { matchPath } from "react-router";
import { bookOf } from "../api/book-of";
import { askForChapter } from "../api/chapter-of";
import { chaptersOf } from "../api/chapters-of";
import { sessionOf } from "../api/session-of";

/** Asks for what a page of a book begins with, all at once: its parts would ask one after the other, as they are drawn. */
export function askEarly(queries: QueryClient, pathname: string): void {
  const { bookId } = matchPath("/books/:bookId/*", pathname)?.params ?? {};
  if (!bookId) return;
  void queries.prefetchQuery(sessionOf);
  void queries.prefetchQuery(bookOf(bookId));
  if (!matchPath("/books/:bookId/write/*", pathname)) return;
  void queries.prefetchQuery(chaptersOf(bookId));
  const { chapterId } = matchPath("/books/:bookId/write/:chapterId", pathname)?.params ?? {};
  if (chapterId) askForChapter(bookId, chapterId);
}
