import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import type { keys } from "./keys";

type Kept = keyof typeof keys;

/** What a link can lead to. */
const destinations: Kept[] = [
  "places",
  "gonePlaces",
  "files",
  "placesInFiles",
  "fromShelf",
  "groups",
  "drive",
  "surroundings",
];

/** For each change that this screen makes, or learns of, all that is not so any more. Nothing else makes stale. */
const staleAfter = {
  /** Words of a chapter were saved, and no link or place is another. */
  words: ["chapters", "findings", "preflight", "books"],
  /** A chapter's text was saved. */
  text: [
    "chapters",
    "places",
    "gonePlaces",
    "groups",
    "surroundings",
    "ledger",
    "destinations",
    "acceptances",
    "findings",
    "preflight",
    "books",
    "linkStates",
  ],
  /** Chapters were made, moved, renamed, deleted or brought back. */
  chapters: ["chapters", ...destinations, "ledger", "findings", "preflight", "books", "linkStates"],
  /** An action over many links was done or undone. */
  step: [
    ...destinations,
    "bareAddresses",
    "finishedPages",
    "ledger",
    "chapters",
    "destinations",
    "steps",
    "versions",
    "mentions",
    "findings",
    "acceptances",
    "preflight",
    "books",
    "linkStates",
  ],
  /** An anchor was renamed. */
  places: [...destinations, "ledger", "findings"],
  /** Companion files came, went, or were called otherwise. */
  files: [...destinations, "ledger", "findings", "preflight"],
  /** Fonts of the author's own came or went. */
  fonts: ["fonts", "preflight"],
  /** A version was kept under a name. */
  versions: ["versions"],
  /** A finding was accepted, or that was taken back. */
  acceptances: ["acceptances", "findings"],
  /** The book's title, looks, conventions, layout, fonts, presets or plan changed. */
  settings: ["book", "books", "findings", "preflight"],
  /** A run over the destinations has come to its end. */
  run: ["destinations", "runs", "findings", "history", "books", "linkStates"],
  /** Copies of linked pages were kept. */
  keptCopies: [...destinations, "destinations", "findings", "preflight"],
  /** An export has come to its end. */
  export: ["exports", "preflight", "places", "fromShelf"],
  /** A book was made, deleted, brought back, or brought in. */
  books: [
    "books",
    "deletedBooks",
    "usage",
    "linkStates",
    "book",
    "chapters",
    "arrivals",
    ...destinations,
    "ledger",
    "findings",
    "preflight",
  ],
} satisfies Record<string, Kept[]>;

export type Change = keyof typeof staleAfter;

/** Says what has changed, so that what is not so any more is read anew. It waits until what is on the screen is. */
export function useStale(): (change: Change) => Promise<void> {
  const queries = useQueryClient();
  return useCallback(
    async (change) => {
      await Promise.all(
        staleAfter[change].map(async (kept) => {
          // A first answer still on its way may tell what was before the change, and is not asked for again by itself.
          await queries.cancelQueries({
            queryKey: [kept],
            predicate: ({ state }) => state.data === undefined,
          });
          await queries.invalidateQueries({ queryKey: [kept] });
        }),
      );
    },
    [queries],
  );
}
