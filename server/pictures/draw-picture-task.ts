import { drawPicture } from "./draw-picture.ts";

/** Draws a picture that not every reader shows; null where it cannot be read. */
export async function run({ bytes }: { bytes: Uint8Array }): Promise<Uint8Array | null> {
  return drawPicture(bytes);
}
