import type { BoxOnPage, PageOfFile } from "../../checks/page-of-file.ts";
import { deadOf } from "../dead-links.ts";
import { writeDestination } from "../../destination/destination.ts";
import type { Area, PdfPage } from "./pdf-page.ts";

/** CSS px in a point. */
const px = 96 / 72;

/** What rules are told of a page besides what stands in its document. */
export function pageForRules({ box, links, isBlank, untouched }: PdfPage): PageOfFile {
  const placed = ([left, low, right, high]: Area): BoxOnPage => ({
    left: (left - box[0]) * px,
    top: (box[3] - high) * px,
    right: (right - box[0]) * px,
    bottom: (box[3] - low) * px,
  });
  return {
    isBlank,
    dead: deadOf(untouched),
    links: links.map(({ id, words, description, destination, areas, frame, isInStructure }) => ({
      id,
      name: words || (description ?? ""),
      to: writeDestination(destination),
      isOnWords: words !== "",
      boxes: areas.map(placed),
      frame,
      isInStructure,
    })),
  };
}
