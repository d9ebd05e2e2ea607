import type { PictureFile } from "@vennet/core/manuscript/book";
import { typesetter } from "../workers/typesetter.ts";

/** Whether a picture can be decoded and set on a page. */
export function run(picture: PictureFile): boolean {
  return typesetter().canShow(picture);
}
