import { ImageRun } from "docx";
import type { PictureAttrs } from "../../../manuscript/attributes.ts";
import { pictureSuffix, type PictureFile } from "../../../manuscript/book.ts";
import { pictureSize } from "../../../manuscript/picture-size.ts";

/** A picture as wide as its author wants it, or as it is where the text has the room. @param available the text's width, in pixels */
export function pictureOfDocx(attrs: PictureAttrs, file: PictureFile, available: number): ImageRun {
  const own = pictureSize(file);
  const width = attrs.width === null ? Math.min(own.width, available) : (available * attrs.width) / 100;
  const height = own.width === 0 ? width : (own.height * width) / own.width;
  return new ImageRun({
    type: pictureSuffix[file.mediaType] as "png",
    data: file.bytes,
    transformation: { width: Math.max(1, Math.round(width)), height: Math.max(1, Math.round(height)) },
    altText: { name: file.id, title: "", description: attrs.decorative ? "" : attrs.alt },
  });
}
