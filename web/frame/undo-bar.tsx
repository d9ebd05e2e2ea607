import { useEffect } from "react";
import { create } from "zustand";
import { Button } from "../parts/button";

interface Undoable {
  message: string;
  undo: () => void;
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

/** Says what was done, and offers to take it back, for twenty seconds. */
export function UndoBar() {
  const { current, clear } = useUndo();
  useEffect(() => {
    if (!current) return;
    const timer = setTimeout(clear, 20_000);
    return () => clearTimeout(timer);
  }, [current, clear]);
  return (
    <div role="status" className="fixed inset-x-0 bottom-4 z-40 mx-auto w-fit">
      {current && (
        <div className="flex items-center gap-4 border border-ink bg-paper px-4 py-2 shadow-md">
          <span>{current.message}</span>
          <Button
            kind="main"
            onClick={() => {
              current.undo();
              clear();
            }}
          >
            Undo
          </Button>
          <Button kind="quiet" onClick={clear}>
            Close
          </Button>
        </div>
      )}
    </div>
  );
}
