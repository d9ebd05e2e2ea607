import { create } from "zustand";

/** Whether something is shown while one writes; the browser remembers it. */
export function rememberedShown(stored: string, usual: boolean) {
  const kept = localStorage.getItem(stored);
  return create<{ shown: boolean; show: (shown: boolean) => void }>((set) => ({
    shown: kept === null ? usual : kept === "shown",
    show: (shown) => {
      localStorage.setItem(stored, shown ? "shown" : "hidden");
      set({ shown });
    },
  }));
}
