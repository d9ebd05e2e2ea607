import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { create } from "zustand";

/** A link that was taken from one place, to be given to other words; it outlives the chapter. */
interface TakenLink {
  taken: { destination: Destination; description: string | null; text: string } | null;
  take: (link: NonNullable<TakenLink["taken"]>) => void;
}

export const useTakenLink = create<TakenLink>((set) => ({
  taken: null,
  take: (taken) => set({ taken }),
}));
