import { percentDecoded } from "../destination/percent-decoded.ts";
import { Parser } from "htmlparser2";
import { decodePage } from "../import/text-encoding.ts";
import { topOfBook } from "../manuscript/book-index.ts";
import { mostPlaces, type FilePlaces } from "../manuscript/file-places.ts";
import { Destinations } from "./pdf/destinations.ts";
import { waysIntoEpub } from "./epub/ways-into-epub.ts";
import { openFinished } from "./pdf/open-finished.ts";
import { pagesOf } from "./pdf/read-finished.ts";

/** As many letters are told of what a place is called. */
const longestName = 200;

/**
 * The pages and places of a file to which addresses can lead: of a PDF its pages, the entries of its outline and the
 * destinations that it names (RFC 8118), of a page of HTML its headings and ids (WHATWG HTML, 7.4.6.4), of an e-book those of all its pages.
 * @returns null for other files
 * @throws FinishedError or ImportError where it cannot be read
 */
export async function placesInFile(bytes: Uint8Array, mediaType: string): Promise<FilePlaces | null> {
  if (mediaType === "application/pdf") return placesInPdf(bytes);
  if (/^(text\/html|application\/xhtml\+xml)$/.test(mediaType)) return placesInHtml(decodePage(bytes));
  if (mediaType === "application/epub+zip") return { pages: null, places: shortened(waysIntoEpub(bytes)) };
  return null;
}

async function placesInPdf(bytes: Uint8Array): Promise<FilePlaces> {
  const { document } = await openFinished(bytes);
  const pages = pagesOf(document);
  const outline = pages.flatMap(({ number: page, places }) =>
    places.flatMap(({ of, name, y }) => (of === "outline" ? [{ page, name, y }] : [])),
  );
  const destinations = new Destinations(document);
  const called = new Set<(typeof outline)[number]>();
  const named = destinations.names().flatMap((id) => {
    const there = destinations.landingOfName(id);
    if (!there) return [];
    const { page, y } = there;
    const entry = outline.find(
      (one) => y !== null && one.y !== null && one.page === page && Math.abs(one.y - y) < asClose,
    );
    if (entry) called.add(entry);
    const title = id === topOfBook ? document.getTitle() : undefined;
    return [{ at: `nameddest=${encodeURIComponent(id)}`, name: entry?.name ?? (title || id), page, y }];
  });
  // What has a name of its own is led to by that, which is more exact than its page.
  const others = outline
    .filter((entry) => !called.has(entry))
    .map((entry) => ({ ...entry, at: `page=${entry.page}` }));
  const inOrder = [...others, ...named].sort(
    (a, b) => a.page - b.page || (b.y ?? Infinity) - (a.y ?? Infinity),
  );
  return { pages: pages.length, places: shortened(inOrder) };
}

/** Points between what an entry of the outline leads to and a destination, where both are one place. */
const asClose = 2;

function placesInHtml(text: string): FilePlaces {
  const places: { at: string; name: string }[] = [];
  /** What each open element adds its words to. */
  const open: ({ at: string; name: string } | null)[] = [];
  const parser = new Parser({
    onopentag: (tag, { id, name }) => {
      const at = id || (tag === "a" ? name : undefined);
      const place = at ? { at: encodeURIComponent(at), name: "" } : null;
      if (place) places.push(place);
      open.push(place);
    },
    ontext: (words) => {
      for (const place of open)
        if (place && place.name.length < longestName) place.name += words.replace(/\s+/g, " ");
    },
    onclosetag: () => void open.pop(),
  });
  parser.end(text);
  for (const place of places) place.name = place.name.trim() || percentDecoded(place.at);
  return { pages: null, places: shortened(places) };
}

function shortened(places: readonly { at: string; name: string }[]): FilePlaces["places"] {
  return places.slice(0, mostPlaces).map(({ at, name }) => ({ at, name: name.slice(0, longestName) }));
}
