import { usedPictures } from "@vennet/core/manuscript/book";
import type { KnownBefore } from "@vennet/core/publish/formats/format";
import { formats, type ExportOptions } from "@vennet/core/publish/formats/formats";
import { planLinks, type PlannedLinks } from "@vennet/core/publish/link-plan";
import { foreseeChanges } from "@vennet/core/publish/foresee";
import type { ForeseenChange } from "@vennet/core/publish/export-warning";
import { ownFonts } from "@vennet/core/publish/own-fonts";
import { findObstacles, type Obstacle } from "@vennet/core/publish/preflight";
import { prepare } from "@vennet/core/publish/prepare";
import { travellingFiles } from "@vennet/core/publish/travelling-files";
import { FontShapes } from "../workers/fonts.ts";
import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";

/** What an export would refuse, what it would change where it is told what is known, what becomes of every kind of link, and the files that it takes along, by their ids. */
export function run(input: {
  book: PlainBook;
  options: ExportOptions;
  known?: Omit<KnownBefore, "shapes">;
}): {
  obstacles: Obstacle[];
  changes: ForeseenChange[];
  links: PlannedLinks[];
  pictures: string[];
  companions: string[];
} {
  const { options, known } = input;
  const book = bookOfPlain(input.book);
  const prepared = prepare(book, options);
  const { isStrict, obstacles } = formats[options.format];
  return {
    // Whether the file makes a claim that no picture without words may break.
    obstacles: [...findObstacles(prepared, isStrict?.(options) ?? false), ...(obstacles?.(prepared) ?? [])],
    changes: known
      ? foreseeChanges(prepared, options, { shapes: new FontShapes(ownFonts(book, "pdf").faces), ...known })
      : [],
    links: planLinks(book, options),
    pictures: [...usedPictures(prepared)],
    companions: [...travellingFiles(prepared).keys()],
  };
}
