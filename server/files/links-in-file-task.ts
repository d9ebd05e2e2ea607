import { askedOf, writeDestination } from "@vennet/core/destination/destination";
import { linksOutOfFile } from "@vennet/core/finished/links-in-file";

/** A link that leaves a file, as it is kept. */
export interface LinkInFile {
  destination: string;
  page: number;
  askedAddress: string | null;
  host: string | null;
}

/** No program asks for a longer address. */
const longest = 8_000;

/**
 * Reads where the links of a file lead that leave it.
 * @throws FinishedError, or ImportError, where it cannot be read
 */
export async function run({
  bytes,
  mediaType,
}: {
  bytes: Uint8Array;
  mediaType: string;
}): Promise<LinkInFile[]> {
  return ((await linksOutOfFile(bytes, mediaType)) ?? []).flatMap(({ destination, page }) => {
    const asked = askedOf(destination);
    const written = writeDestination(destination);
    if (written.length > longest) return [];
    return [
      {
        destination: written,
        page,
        askedAddress: asked?.address ?? null,
        host: asked?.host.slice(0, 300) ?? null,
      },
    ];
  });
}
