import type { Destination } from "@vennet/core/destination/destination";
import { recognise } from "@vennet/core/destination/recognise";
import { suggest, type KnownDestination } from "@vennet/core/destination/suggest";

/**
 * Reads what was typed as a destination: an address, else the best of what the book knows by that name;
 * `words` say what it was taken for, what was mended, or what is wrong.
 */
export function readDestination(
  typed: string,
  known: readonly KnownDestination[],
): { destination: Destination | null; words: string } {
  try {
    const { destination, mended } = recognise(typed);
    return { destination, words: mended.length > 0 ? `Mended: ${mended.join("; ")}` : "" };
  } catch (error) {
    const [best] = suggest(typed, known, 1);
    if (best) return { destination: best.destination, words: `${best.name}: ${best.detail}` };
    return { destination: null, words: (error as Error).message };
  }
}
