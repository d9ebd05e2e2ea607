import { useEffect, useState } from "react";
import { create } from "zustand";
import { ApiError } from "../api/client";
import { Button } from "../parts/button";
import { forgetDone, tellDone, turn, useHistory, type Undoable } from "./history";

interface UndoState {
  /** The last thing that was done outside of a text, while it is offered to be taken back. */
  offered: Undoable | null;
  /** What is said of a press of undo or redo. */
  said: string | null;
}

const useUndoBar = create<UndoState>(() => ({ offered: null, said: null }));

/** Says what was done, and offers to take it back; undo by key takes it back later too. */
export function offerUndo(undoable: Undoable): void {
  tellDone(undoable);
  useUndoBar.setState({ offered: undoable, said: null });
}

/** Says something at the foot of the page. */
function sayInBar(said: string): void {
  useUndoBar.setState({ offered: null, said });
}

/** Says why something that was pressed could not be done, where nothing else says so. */
export function sayRefusals(): void {
  addEventListener("unhandledrejection", ({ reason }) => {
    if (reason instanceof ApiError) sayInBar(reason.message);
  });
}

const shownFor = 20_000;

/** Says what was done, and offers to take it back, for twenty seconds. */
export function UndoBar() {
  const { offered, said } = useUndoBar();
  const isStillDone = useHistory(
    ({ done }) => offered !== null && done.some((one) => one.kind === "action" && one.undoable === offered),
  );
  const [busy, setBusy] = useState(false);
  const close = (): void => useUndoBar.setState({ offered: null, said: null });
  useEffect(() => {
    if (!offered && said === null) return;
    const timer = setTimeout(close, offered ? shownFor : shownFor / 3);
    return () => clearTimeout(timer);
  }, [offered, said]);
  const undo = async (undoable: Undoable): Promise<void> => {
    setBusy(true);
    try {
      const result = await undoable.undo();
      forgetDone(undoable);
      useUndoBar.setState({ offered: null, said: typeof result === "string" ? result : null });
    } catch (error) {
      useUndoBar.setState({ said: `It could not be undone: ${(error as Error).message}` });
    }
    setBusy(false);
  };
  const isOffered = offered !== null && isStillDone;
  return (
    <div role="status" className="fixed inset-x-0 bottom-4 z-40 mx-auto w-fit max-w-[calc(100vw-2rem)]">
      {(isOffered || said !== null) && (
        <div className="flex items-center gap-4 border border-ink bg-paper px-4 py-2 shadow-md">
          <span className="min-w-0 [overflow-wrap:anywhere]">{said ?? offered?.message}</span>
          {isOffered && (
            <>
              <Button kind="main" disabled={busy} onClick={() => void undo(offered)}>
                {busy ? "Undoing …" : "Undo"}
              </Button>
              <Button kind="quiet" onClick={close}>
                Close
              </Button>
            </>
          )}
        </div>
      )}
    </div>
  );
}

/** The presses that wait for those before them; null where none does. */
let waiting: Promise<void> | null = null;

/**
 * Takes back the last thing that was done, whatever it was, or does it again.
 * @param open opens a chapter in whose text it is; it is done there then
 */
export function undoOrRedo(
  direction: "undo" | "redo",
  bookId: string,
  open: (bookId: string, chapterId: string, direction: "undo" | "redo") => void,
): void {
  const press = (): Promise<void> => turnOne(direction, bookId, open);
  const done: Promise<void> = (waiting ? waiting.then(press) : press()).then(() => {
    if (waiting === done) waiting = null;
  });
  waiting = done;
}

async function turnOne(
  direction: "undo" | "redo",
  bookId: string,
  open: (bookId: string, chapterId: string, direction: "undo" | "redo") => void,
): Promise<void> {
  try {
    const turned = await turn(direction, bookId);
    if (turned.kind === "elsewhere") open(turned.bookId, turned.chapterId, direction);
    if (turned.kind === "action") sayInBar(turned.said);
  } catch (error) {
    const word = direction === "undo" ? "undone" : "done again";
    sayInBar(`It could not be ${word}: ${(error as Error).message}`);
  }
}
