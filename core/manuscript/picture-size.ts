import { imageSize } from "image-size";
import type { PictureFile } from "./book.ts";

/** A picture's width and height in pixels, read from its bytes; 1 by 1 where they tell none. */
export function pictureSize({ bytes }: Pick<PictureFile, "bytes">): { width: number; height: number } {
  try {
    const { width, height } = imageSize(bytes);
    return { width, height };
  } catch {
    return { width: 1, height: 1 };
  }
}
