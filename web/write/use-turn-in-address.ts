import type { EditorView } from "prosemirror-view";
import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { nextTurn, useHistory } from "../frame/history";
import { pressUndo, turnInAddress } from "../frame/undo-keys";

/** Takes back, or does again, the last change of the chapter that was opened for it. */
export function useTurnInAddress(
  view: EditorView | null,
  { bookId, chapterId }: { bookId: string; chapterId: string },
): void {
  const [search, setSearch] = useSearchParams();
  const wanted = search.get(turnInAddress);
  useEffect(() => {
    if (!view || (wanted !== "undo" && wanted !== "redo")) return;
    search.delete(turnInAddress);
    setSearch(search, { replace: true });
    const last = nextTurn(useHistory.getState(), wanted, bookId);
    // The text may have been left too long ago for its changes to be known still.
    if (last?.kind === "text" && last.chapterId === chapterId) pressUndo(wanted);
  }, [view, wanted, bookId, chapterId, search, setSearch]);
}
