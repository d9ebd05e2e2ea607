import { create } from "zustand";

const stored = "vennet-anchor-marks";

/** Whether anchors show a mark while one writes; the browser remembers it. */
export const useAnchorMarks = create<{ shown: boolean; show: (shown: boolean) => void }>((set) => ({
  shown: localStorage.getItem(stored) !== "hidden",
  show: (shown) => {
    localStorage.setItem(stored, shown ? "shown" : "hidden");
    set({ shown });
  },
}));
