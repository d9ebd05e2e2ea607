import type { EditorView } from "prosemirror-view";
import { useEffect } from "react";
import { useSearchParams } from "react-router";
import { useHistory } from "../frame/history";
import { pressUndo, turnInAddress } from "../frame/undo-keys";

/** Takes back, or does again, the last change of the chapter that was opened for it. */
export function useTurnInAddress(view: EditorView | null, chapterId: string): void {
  const [search, setSearch] = useSearchParams();
  const wanted = search.get(turnInAddress);
  useEffect(() => {
    if (!view || (wanted !== "undo" && wanted !== "redo")) return;
    search.delete(turnInAddress);
    setSearch(search, { replace: true });
    const { done, undone } = useHistory.getState();
    const last = (wanted === "undo" ? done : undone).at(-1);
    // The text may have been left too long ago for its changes to be known still.
    if (last?.kind === "text" && last.chapterId === chapterId) pressUndo(wanted);
  }, [view, wanted, chapterId, search, setSearch]);
}
