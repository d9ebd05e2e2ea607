import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { FilePlaces } from "@vennet/core/manuscript/file-places";
import { usePlacesInFiles } from "./known-destinations";

/** The companion PDF to which a destination leads, or into which; null where it is none. */
export function usePagedFile(
  bookId: string,
  destination: Destination | null,
): { file: string; address: string; name: string; places: FilePlaces["places"] } | null {
  const inFiles = usePlacesInFiles(bookId).data;
  if (destination?.kind !== "file" || !("file" in destination)) return null;
  const there = inFiles?.find(({ id, pages }) => id === destination.file && pages !== null);
  return there
    ? {
        file: there.id,
        address: `/api/books/${bookId}/files/${there.id}`,
        name: there.name,
        places: there.places,
      }
    : null;
}
