import { create } from "zustand";

const stored = "vennet-pages-beside";

/** Whether the set pages stand beside the text; the browser remembers it. */
export const usePagesShown = create<{ shown: boolean; show: (shown: boolean) => void }>((set) => ({
  shown: localStorage.getItem(stored) === "shown",
  show: (shown) => {
    localStorage.setItem(stored, shown ? "shown" : "hidden");
    set({ shown });
  },
}));
