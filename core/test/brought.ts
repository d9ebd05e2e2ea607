import { expect } from "@jest/globals";
import fc from "fast-check";
import { ImportError } from "../import/errors.ts";
import { importManuscript, type ImportedManuscript } from "../import/import-manuscript.ts";
import { topOfBook } from "../manuscript/book-index.ts";
import { linkUses } from "../manuscript/links.ts";
import { placesOf } from "../manuscript/outline.ts";

/** Brings a file in whose content alone tells what it is. */
export function bring(bytes: Uint8Array): Promise<ImportedManuscript> {
  return importManuscript(
    { name: "walks", bytes },
    { fallbackTitle: "Walks", baseAddress: null, pictureFor: () => null },
  );
}

/** The links that a file brings: their words, where each leads, and their descriptions where they have some. */
export async function linksIn(bytes: Uint8Array): Promise<string[][]> {
  const { chapters } = await bring(bytes);
  const places = chapters.flatMap((doc) => placesOf(doc)).map(({ id, text }) => [id, text] as const);
  const names = new Map([[topOfBook, "the top"], ...places]);
  return chapters.flatMap((doc) =>
    linkUses(doc).map(({ text, destination, description }) => [
      text,
      destination.kind === "place"
        ? `→ ${names.get(destination.target) ?? "nowhere"}`
        : String(Object.values(destination)[1]),
      ...(description === null ? [] : [description]),
    ]),
  );
}

/** A sound file cut off somewhere, or with one byte turned into another, is read or refused in a word, every time. */
export async function bearsDamage(sound: Uint8Array): Promise<void> {
  await fc.assert(
    fc.asyncProperty(fc.nat(sound.length - 1), fc.nat(255), fc.boolean(), async (at, byte, isCut) => {
      const bytes = isCut ? sound.slice(0, at) : sound.slice();
      if (!isCut) bytes[at] = byte;
      await isReadOrRefused(bytes);
    }),
    { numRuns: 150 },
  );
}

export async function isReadOrRefused(bytes: Uint8Array): Promise<void> {
  await bring(bytes).then(
    ({ chapters }) => chapters.forEach((doc) => doc.check()),
    (error: unknown) => {
      expect(error).toBeInstanceOf(ImportError);
      // Whoever is refused is told what to do.
      expect((error as ImportError).message).toMatch(/\b(bring|save|take)\b/i);
    },
  );
}
