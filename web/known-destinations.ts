import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { topOfBook } from "@vennet/core/manuscript/book-index";
import { readHref, type Destination, type DestinationNames } from "@vennet/core/destination/destination";
import type { KnownDestination } from "@vennet/core/destination/suggest";
import { useMemo } from "react";
import { answerOf, api, type LedgerGroup } from "./api/client";
import { fileSize } from "./parts/wording";
import { kindWords } from "./write/places/known-place";

/** The queries that tell what a book's links can lead to; whoever changes the book makes them stale. */
export const destinationQueries = ["places", "files", "groups", "drive"];

export function useFiles(bookId: string) {
  return useQuery({
    queryKey: ["files", bookId],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/files", { params: { path: { bookId } } })),
  });
}

export function useSharedFiles(bookId: string) {
  return useQuery({
    queryKey: ["drive", bookId],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/drive", { params: { path: { bookId } } })),
  });
}

export function usePlaces(bookId: string) {
  return useQuery({
    queryKey: ["places", bookId],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/places", { params: { path: { bookId } } })),
  });
}

const noRows: never[] = [];

/** What companion files and places of the book are called. */
export function useDestinationNames(bookId: string): DestinationNames {
  const files = useFiles(bookId).data ?? noRows;
  const places = usePlaces(bookId).data ?? noRows;
  return useMemo(
    () => ({
      files: new Map(files.map(({ id, name }) => [id, name])),
      places: new Map([
        [topOfBook, "Top of the book"] as const,
        ...places.map(({ id, text, kind }) => [id, text || kindWords[kind]] as const),
      ]),
    }),
    [files, places],
  );
}

const audienceWords = {
  owner: "only its owner may open it",
  group: "",
  anyone: "anyone with the address may open it",
};

/** Everything that a link of the book can be meant to lead to. */
export function useKnownDestinations(bookId: string): KnownDestination[] {
  const files = useFiles(bookId).data ?? noRows;
  const places = usePlaces(bookId).data ?? noRows;
  const shared = useSharedFiles(bookId).data ?? noRows;
  const groups =
    useQuery({
      queryKey: ["groups", bookId, {}],
      queryFn: () => answerOf(api.GET("/api/books/{bookId}/links/groups", { params: { path: { bookId } } })),
      placeholderData: keepPreviousData,
    }).data ?? noRows;
  return useMemo(() => {
    const uses = new Map(groups.map(({ destination, count }) => [destination, count]));
    return [
      ...files.map(({ id, name, size }): KnownDestination => ({
        destination: { kind: "file", file: id },
        name,
        detail: `Companion file, ${fileSize(size)}`,
        uses: uses.get(`companion:${id}`) ?? 0,
      })),
      {
        destination: { kind: "place", target: topOfBook },
        name: "Top of the book",
        detail: "The title page",
        uses: uses.get(`#${topOfBook}`) ?? 0,
      },
      ...places.map(({ id, text, kind, chapter, context, companion, unwritten }): KnownDestination => ({
        destination: { kind: "place", target: id },
        name: text || kindWords[kind],
        detail:
          companion && kind === "title"
            ? `Companion page${unwritten ? ", not written yet" : ""}`
            : kind === "title"
              ? "Chapter"
              : `${kindWords[kind]} in ${chapter}${context ? `: ${context}` : ""}`,
        uses: uses.get(`#${id}`) ?? 0,
      })),
      ...shared.map(({ name, folder, address, audience, group }): KnownDestination => ({
        destination: { kind: "file", share: address },
        name,
        detail: `Shared in ${folder}: ${audience === "group" ? `${group} may open it` : audienceWords[audience]}`,
        uses: uses.get(address) ?? 0,
      })),
      ...groups.flatMap(usedBefore),
    ];
  }, [files, places, shared, groups]);
}

function usedBefore({ kind, destination, destinationName, count, texts }: LedgerGroup): KnownDestination[] {
  if (kind !== "web" && kind !== "email") return [];
  let read: Destination;
  try {
    read = readHref(destination, null);
  } catch {
    return [];
  }
  return [
    {
      destination: read,
      name: destinationName.replace(/^(https?:\/\/(www\.)?|mailto:)/, "").replace(/\/$/, ""),
      detail: `“${texts[0] ?? ""}”${count > 1 ? `, ${count} links` : ""}`,
      uses: count,
    },
  ];
}
