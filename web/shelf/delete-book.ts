import { answerOf, api } from "../api/client";
import { forgetDone, type Undoable } from "../frame/history";
import { offerUndo } from "../frame/undo-bar";

/** The deletions of this window that are offered to be taken back, by book. */
const offered = new Map<string, Undoable>();

/**
 * Deletes a book, and offers to take it back.
 * @param refresh shows the Shelf as it is now, after it and after its undoing
 */
export async function deleteBook(
  { id, title }: { id: string; title: string },
  refresh: () => Promise<void>,
): Promise<void> {
  await answerOf(api.DELETE("/api/books/{bookId}", { params: { path: { bookId: id } } }));
  const undoable: Undoable = {
    bookId: id,
    message: `“${title}” was deleted.`,
    undo: async () => {
      await bringBack(id);
      await refresh();
    },
  };
  offered.set(id, undoable);
  offerUndo(undoable);
  await refresh();
}

/** Brings a deleted book back to the Shelf. Undo has nothing to take back of its deletion then. */
export async function bringBack(deletedBookId: string): Promise<void> {
  const params = { path: { deletedBookId } };
  await answerOf(api.POST("/api/books/deleted/{deletedBookId}/restore", { params }));
  forgetDeletion(deletedBookId);
}

/** Deletes for good a book that was deleted. */
export async function deleteForGood(deletedBookId: string): Promise<void> {
  const params = { path: { deletedBookId } };
  await answerOf(api.DELETE("/api/books/deleted/{deletedBookId}", { params }));
  forgetDeletion(deletedBookId);
}

function forgetDeletion(bookId: string): void {
  const undoable = offered.get(bookId);
  if (undoable) forgetDone(undoable);
  offered.delete(bookId);
}
