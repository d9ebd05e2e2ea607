import { placesInFile } from "@vennet/core/finished/places-in-file";
import type { FilePlaces } from "@vennet/core/manuscript/file-places";

/**
 * Reads to which pages and places of a file links can lead.
 * @throws FinishedError where it is a PDF that cannot be read
 */
export function run({
  bytes,
  mediaType,
}: {
  bytes: Uint8Array;
  mediaType: string;
}): Promise<FilePlaces | null> {
  return placesInFile(bytes, mediaType);
}
