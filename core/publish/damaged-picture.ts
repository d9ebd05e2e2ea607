import type { PictureAttrs } from "../manuscript/attributes.ts";

/** What to tell of a picture whose bytes cannot be decoded. */
export function damagedPicture({ source, alt }: PictureAttrs, inPages: boolean): string {
  const then = inPages
    ? "cannot be shown; its text alternative stands in its place"
    : "readers’ programs may not show it";
  return `The picture “${source ?? alt}” is damaged${inPages ? " and" : ";"} ${then}. Bring it in anew.`;
}
