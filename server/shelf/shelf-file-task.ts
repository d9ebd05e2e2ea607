import { placesInFile } from "@vennet/core/finished/places-in-file";
import type { FilePlaces } from "@vennet/core/manuscript/file-places";
import { openExport } from "@vennet/core/proof/exported-folder";

/**
 * The file of a publication as another one takes it along, out of the folder in which it went out, with its pages and places.
 * @throws FinishedError, ImportError or ProofError where it cannot be read
 */
export async function run({
  bytes,
  mediaType,
  isFolder,
}: {
  bytes: Uint8Array;
  mediaType: string;
  isFolder: boolean;
}): Promise<{ bytes: Uint8Array; places: FilePlaces }> {
  const file = isFolder ? openExport(bytes).main : bytes;
  return { bytes: file, places: (await placesInFile(file, mediaType)) ?? { pages: null, places: [] } };
}
