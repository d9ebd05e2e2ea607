import { create } from "zustand";

interface GoneWithChapters {
  /** The places that went with chapters deleted in this window, while links led to them. */
  ids: ReadonlySet<string>;
  tell: (ids: readonly string[]) => void;
}

export const useGoneWithChapters = create<GoneWithChapters>((set) => ({
  ids: new Set(),
  tell: (more) => set(({ ids }) => ({ ids: new Set([...ids, ...more]) })),
}));
