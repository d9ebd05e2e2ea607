import { ImageRun } from "docx";
import type { PictureAttrs } from "../../../manuscript/attributes.ts";
import { pictureSuffix, type PictureFile } from "../../../manuscript/book.ts";
import type { PageLayout } from "../../../manuscript/page-layout.ts";
import { sizeOnPage } from "../picture-on-page.ts";

/** A picture in a line of the text. */
export function pictureOfDocx(attrs: PictureAttrs, file: PictureFile, layout: PageLayout): ImageRun {
  const { width, height } = sizeOnPage(file, attrs.width, layout);
  return new ImageRun({
    type: pictureSuffix[file.mediaType] as "png",
    data: file.bytes,
    transformation: { width: Math.max(1, Math.round(width)), height: Math.max(1, Math.round(height)) },
    altText: { name: file.id, title: "", description: attrs.decorative ? "" : attrs.alt },
  });
}
