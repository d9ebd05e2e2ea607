import { create } from "zustand";

/** Chapters that the server has changed by itself, so that an open one is read again. */
interface BookChanges {
  chapters: ReadonlySet<string>;
  /** Counts the tellings, since the same chapter may change twice. */
  count: number;
  tell: (chapters: string[]) => void;
}

export const useBookChanges = create<BookChanges>((set) => ({
  chapters: new Set(),
  count: 0,
  tell: (chapters) => set(({ count }) => ({ chapters: new Set(chapters), count: count + 1 })),
}));
