import type { createBrowserRouter } from "react-router";
import { undoOrRedo } from "./undo-bar";

type Router = ReturnType<typeof createBrowserRouter>;

/** Where in the address it says that the opened chapter is to take back, or do again, its last change. */
export const turnInAddress = "turn";

let router: Router | null = null;

/** Undo and redo by key, wherever on the page; fields have their own. */
export function listenForUndo(of: Router): void {
  router = of;
  document.addEventListener("keydown", (event) => {
    const target = event.target as HTMLElement;
    if (
      event.defaultPrevented ||
      target.isContentEditable ||
      /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
    )
      return;
    const direction = undoDirection(event);
    if (!direction) return;
    event.preventDefault();
    pressUndo(direction);
  });
}

/** Takes back the last thing done, or does it again, going to the chapter in which it was where it must. */
export function pressUndo(direction: "undo" | "redo"): void {
  const bookId = /^\/books\/([^/]+)/.exec(location.pathname)?.[1];
  if (bookId === undefined) return;
  undoOrRedo(direction, bookId, (_, chapterId, way) => {
    void router?.navigate(`/books/${bookId}/write/${chapterId}?${turnInAddress}=${way}`);
  });
}

/** Which of both a key asks for; null for another key. */
export function undoDirection(event: {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
  altKey: boolean;
}): "undo" | "redo" | null {
  if (!(event.ctrlKey || event.metaKey) || event.altKey) return null;
  const key = event.key.toLowerCase();
  if (key === "z") return event.shiftKey ? "redo" : "undo";
  return key === "y" ? "redo" : null;
}
