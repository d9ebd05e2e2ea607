import { useEffect, useState } from "react";
import { create } from "zustand";
import { Button } from "../parts/button";

interface Undoable {
  message: string;
  /** Takes it back; what it gives is said afterwards. What it throws is said too, and it can be tried again. */
  undo: () => void | Promise<string>;
}

interface UndoState {
  current: Undoable | null;
  offer: (undoable: Undoable) => void;
  clear: () => void;
}

/** The last thing that can be taken back. */
export const useUndo = create<UndoState>((set) => ({
  current: null,
  offer: (current) => set({ current }),
  clear: () => set({ current: null }),
}));

const shownFor = 20_000;

/** Says what was done, and offers to take it back, for twenty seconds. */
export function UndoBar() {
  const { current, clear } = useUndo();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    setSaid(null);
    if (!current) return;
    const timer = setTimeout(clear, shownFor);
    return () => clearTimeout(timer);
  }, [current, clear]);
  useEffect(() => {
    if (said === null || busy) return;
    const timer = setTimeout(() => setSaid(null), shownFor / 3);
    return () => clearTimeout(timer);
  }, [said, busy]);
  const undo = async ({ undo: takeBack }: Undoable): Promise<void> => {
    setBusy(true);
    try {
      const result = await takeBack();
      clear();
      // After clear(), which empties what was said before.
      if (result) setTimeout(() => setSaid(result));
    } catch (error) {
      setSaid(`It could not be undone: ${(error as Error).message}`);
    }
    setBusy(false);
  };
  return (
    <div role="status" className="fixed inset-x-0 bottom-4 z-40 mx-auto w-fit max-w-[calc(100vw-2rem)]">
      {(current || said) && (
        <div className="flex items-center gap-4 border border-ink bg-paper px-4 py-2 shadow-md">
          <span>{said ?? current?.message}</span>
          {current && (
            <>
              <Button kind="main" disabled={busy} onClick={() => void undo(current)}>
                {busy ? "Undoing …" : "Undo"}
              </Button>
              <Button kind="quiet" onClick={clear}>
                Close
              </Button>
            </>
          )}
        </div>
      )}
    </div>
  );
}
