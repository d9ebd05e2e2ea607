import { decodePage } from "@vennet/core/import/text-encoding";
import { keptPage, resourcesOf, type Resource } from "@vennet/core/reach/kept-page";

interface Page {
  bytes: Uint8Array;
  address: string;
}

/**
 * What a page shows and that lies elsewhere; or, where that is given, the page as one file with all of it inside.
 * @param input.keep when it was taken, and what was fetched for it
 */
export function run({
  bytes,
  address,
  keep,
}: Page & { keep?: { keptAt: Date; resources: ReadonlyMap<string, Resource> } }): {
  resources: string[];
  html: string | null;
} {
  const text = decodePage(bytes);
  if (!keep) return { resources: resourcesOf(text, address), html: null };
  return { resources: [], html: keptPage(text, { address, keptAt: keep.keptAt }, keep.resources) };
}
