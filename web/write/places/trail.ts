import { create } from "zustand";

/** Where the author was before following a link inside the book. */
export interface Footprint {
  chapterId: string;
  from: number;
  to: number;
  /** How far the page was scrolled, in pixels. */
  scrolled: number;
}

interface Trail {
  footprints: readonly Footprint[];
  leave: (footprint: Footprint) => void;
  /** Takes the last footprint off the trail. */
  back: () => Footprint | null;
}

const longest = 50;

/** The way back through the places that were followed to, over chapters too. */
export const useTrail = create<Trail>((set, get) => ({
  footprints: [],
  leave: (footprint) => set(({ footprints }) => ({ footprints: [...footprints, footprint].slice(-longest) })),
  back: () => {
    const last = get().footprints.at(-1) ?? null;
    set(({ footprints }) => ({ footprints: footprints.slice(0, -1) }));
    return last;
  },
}));
