import type { PictureFile } from "../../manuscript/book.ts";
import { textHeight, textWidth, type PageLayout } from "../../manuscript/page-layout.ts";
import { pictureSize } from "../../manuscript/picture-size.ts";

/** What a page leaves to what belongs to a picture, its caption say. */
const mostOfHeight = 0.9;

/**
 * How large a text document shows a picture, in CSS px: as wide as its author wants it, else as it is where the text has
 * the room; and never higher than a page.
 * @param share of the text's width, in percent
 */
export function sizeOnPage(
  file: PictureFile,
  share: number | null,
  layout: PageLayout,
): { width: number; height: number } {
  const own = pictureSize(file);
  const room = textWidth(layout);
  const wanted = share === null ? Math.min(own.width, room) : (room * share) / 100;
  const perWidth = own.width === 0 ? 1 : own.height / own.width;
  const width = Math.min(wanted, (textHeight(layout) * mostOfHeight) / (perWidth || 1));
  return { width, height: width * perWidth };
}
