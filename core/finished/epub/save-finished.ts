import { kindOf } from "../../destination/kinds/kinds.ts";
import { FinishedError } from "../errors.ts";
import { placesOfEpub, type EpubPage, type EpubPlace, type PlaceInEpub } from "./epub-page.ts";
import { openEpub } from "./read-finished.ts";
import type { LinksDone, SavedFile } from "../saved-file.ts";
import { writeLinks } from "./write-links.ts";
import { withEntries } from "./zip-entries.ts";

/**
 * Writes links as they are to be into an e-book. Only the files of the container in which something of that is are packed
 * anew, and in them only the links, and names of places to which they lead; the bytes of all others stay as they are.
 * @param pages all pages, as they are to be
 * @throws FinishedError where the file cannot be read, or has other pages
 */
export function saveFinishedEpub(bytes: Uint8Array, pages: readonly EpubPage[]): SavedFile {
  const { pages: before } = openEpub(bytes);
  if (before.length !== pages.length || before.some(({ page }, i) => page.path !== pages[i]!.path))
    throw new FinishedError("changed", "The file has other pages than those whose links are to be written.");
  const places = placesOfEpub(pages);
  const linked = linkedPlaces(pages, places);
  const contents = new Map<string, Uint8Array>();
  const done: LinksDone = { added: 0, changed: 0, removed: 0 };
  for (const [i, page] of pages.entries()) {
    const written = writeLinks(before[i]!, page, places, linked.get(page) ?? []);
    if (written.text === before[i]!.source.source) continue;
    done.added += written.added;
    done.changed += written.changed;
    done.removed += written.removed;
    contents.set(page.path, new TextEncoder().encode(written.text));
  }
  return { bytes: contents.size === 0 ? bytes : withEntries(bytes, contents), ...done };
}

/** The places of each page to which a link leads. */
function linkedPlaces(
  pages: readonly EpubPage[],
  places: ReadonlyMap<string, PlaceInEpub>,
): Map<EpubPage, EpubPlace[]> {
  const linked = new Map<EpubPage, Set<EpubPlace>>();
  for (const { destination } of pages.flatMap(({ links }) => links)) {
    const outside = kindOf(destination).outside(destination);
    const found = outside.kind === "place" ? places.get(outside.target) : undefined;
    if (!found?.place) continue;
    const of = linked.get(found.page) ?? new Set();
    linked.set(found.page, of.add(found.place));
  }
  return new Map([...linked].map(([page, of]) => [page, [...of]]));
}
