import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { topOfBook } from "@vennet/core/manuscript/book-index";
import { readHref, writeDestination } from "@vennet/core/destination/destination";
import { inFileKey } from "@vennet/core/destination/kinds/file";
import { kinds as kindTable, type Destination } from "@vennet/core/destination/kinds/kinds";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import type { KnownDestination } from "@vennet/core/destination/suggest";
import { useMemo } from "react";
import { answerOf, api, type LedgerGroup } from "../api/client";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { fileSize } from "../parts/wording";
import { kindWords } from "./known-place";

export function useFiles(bookId: string) {
  return useQuery({
    queryKey: keys.files(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/files", { params: { path: { bookId } } })),
  });
}

/** The companion files in which links can lead to pages or places. The server reads each when it is first asked of it. */
export function usePlacesInFiles(bookId: string) {
  const hasAny = useFiles(bookId).data?.some(({ mediaType }) => /pdf|html|epub/.test(mediaType)) ?? false;
  return useQuery({
    queryKey: keys.placesInFiles(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/files/places", { params: { path: { bookId } } })),
    enabled: hasAny,
  });
}

export function useSharedFiles(bookId: string) {
  return useQuery({
    queryKey: keys.drive(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/drive", { params: { path: { bookId } } })),
  });
}

export function usePlaces(bookId: string) {
  return useQuery({
    queryKey: keys.places(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/places", { params: { path: { bookId } } })),
  });
}

/** The places that are gone and that links still lead to. */
export function useGonePlaces(bookId: string) {
  return useQuery({
    queryKey: keys.gonePlaces(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/places/gone", { params: { path: { bookId } } })),
  });
}

const noRows: never[] = [];

/** What companion files and places of the book are called. */
export function useDestinationNames(bookId: string): DestinationNames {
  const files = useFiles(bookId).data ?? noRows;
  const places = usePlaces(bookId).data ?? noRows;
  const inFiles = usePlacesInFiles(bookId).data ?? noRows;
  const gone = useGonePlaces(bookId).data ?? noRows;
  return useMemo(
    () => ({
      files: new Map(files.map(({ id, name }) => [id, name])),
      places: new Map([
        [topOfBook, "Top of the book"] as const,
        ...gone.map(({ id, name }) => [id, `${name} (deleted)`] as const),
        ...places.map(({ id, text, kind }) => [id, text || kindWords[kind]] as const),
      ]),
      inFiles: new Map(
        inFiles.flatMap((file) => file.places.map(({ at, name }) => [inFileKey(file.id, at), name] as const)),
      ),
    }),
    [files, places, inFiles, gone],
  );
}

/** Who may open a shared file, in words. */
export function whoMayOpen(audience: "owner" | "group" | "anyone", group: string | null): string {
  if (audience === "group") return `${group} may open it`;
  return audience === "owner" ? "only its owner may open it" : "anyone with the address may open it";
}

/** Everything that a link of the book can be meant to lead to. */
export function useKnownDestinations(bookId: string): KnownDestination[] {
  const { finished } = useBook();
  const files = useFiles(bookId).data ?? noRows;
  const places = usePlaces(bookId).data ?? noRows;
  const inFiles = usePlacesInFiles(bookId).data ?? noRows;
  const shared = useSharedFiles(bookId).data ?? noRows;
  const groups =
    useQuery({
      queryKey: keys.groups(bookId),
      queryFn: () => answerOf(api.GET("/api/books/{bookId}/links/groups", { params: { path: { bookId } } })),
      placeholderData: keepPreviousData,
    }).data ?? noRows;
  return useMemo(() => {
    const counts = new Map(groups.map(({ destination, count }) => [destination, count]));
    const usedBy = (destination: Destination): { destination: Destination; uses: number } => ({
      destination,
      uses: counts.get(writeDestination(destination)) ?? 0,
    });
    return [
      ...files.map(({ id, name, size }): KnownDestination => ({
        ...usedBy({ kind: "file", file: id }),
        name,
        detail: `Companion file, ${fileSize(size)}`,
        ...pagesOf(inFiles.find((one) => one.id === id)?.pages),
      })),
      ...inFiles.flatMap((file) =>
        file.places.map(({ at, name }): KnownDestination => ({
          ...usedBy({ kind: "file", file: file.id, at }),
          name,
          detail: `In ${file.name}${/^page=/.test(at) ? `, page ${at.slice(5)}` : ""}`,
        })),
      ),
      // A finished file begins with its first page, which is a place like every other.
      ...(finished
        ? []
        : [
            {
              ...usedBy({ kind: "place", target: topOfBook }),
              name: "Top of the book",
              detail: "The title page",
            },
          ]),
      ...places.map(({ id, text, kind, chapter, context, role, unwritten }): KnownDestination => ({
        ...usedBy({ kind: "place", target: id }),
        name: text || kindWords[kind],
        detail:
          role === "companion" && kind === "title"
            ? `Companion page${unwritten ? ", not written yet" : ""}`
            : kind === "title"
              ? finished
                ? "The top of the page"
                : "Chapter"
              : `${kindWords[kind]} in ${chapter}${context ? `: ${context}` : ""}`,
      })),
      ...shared.map(({ name, folder, address, audience, group }): KnownDestination => ({
        ...usedBy({ kind: "file", share: address }),
        name,
        detail: `Shared in ${folder}: ${whoMayOpen(audience, group)}`,
      })),
      ...groups.flatMap(usedBefore),
    ];
  }, [files, places, inFiles, shared, groups, finished]);
}

function pagesOf(pages: number | null | undefined): Pick<KnownDestination, "pages"> {
  return pages ? { pages } : {};
}

function usedBefore({ kind, destination, destinationName, count, texts }: LedgerGroup): KnownDestination[] {
  if (kindTable[kind].schemes.length === 0) return [];
  let read: Destination;
  try {
    read = readHref(destination, null);
  } catch {
    return [];
  }
  return [
    {
      destination: read,
      name: destinationName.replace(/^(https?:\/\/(www\.)?|mailto:|tel:)/, "").replace(/\/$/, ""),
      detail: `“${texts[0] ?? ""}”${count > 1 ? `, ${count} links` : ""}`,
      uses: count,
    },
  ];
}
