import { writeDestination } from "../destination/destination.ts";
import type { Destination } from "../destination/kinds/kinds.ts";
import { readFinishedEpub } from "./epub/read-finished.ts";
import { openFinished } from "./pdf/open-finished.ts";
import { pagesOf } from "./pdf/read-finished.ts";

/** A link of a file that leads out of it. */
export interface LinkOutOfFile {
  destination: Destination;
  /** The first page on which it stands, from 1. */
  page: number;
}

/** As many are told of one file. */
const mostLinks = 500;

/**
 * Where the links of a PDF or e-book lead that leave it, each destination once, in reading order.
 * @returns null for other files
 * @throws FinishedError, or ImportError, where it cannot be read
 */
export async function linksOutOfFile(bytes: Uint8Array, mediaType: string): Promise<LinkOutOfFile[] | null> {
  const pages =
    mediaType === "application/pdf"
      ? pagesOf((await openFinished(bytes)).document)
      : mediaType === "application/epub+zip"
        ? readFinishedEpub(bytes).pages
        : null;
  if (pages === null) return null;
  const found = new Map<string, LinkOutOfFile>();
  for (const { number, links } of pages)
    for (const { destination } of links) {
      if (destination.kind === "place" || found.size >= mostLinks) continue;
      const written = writeDestination(destination);
      if (!found.has(written)) found.set(written, { destination, page: number });
    }
  return [...found.values()];
}
