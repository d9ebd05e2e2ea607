import type { Mutation } from "./mutation.ts";

/** Nowhere on the picture takes a press. */
export const areaEmptied: Mutation = {
  name: "an area of a picture emptied",
  pages(file, pick) {
    const area = pick(file.links(/<(rect|polygon|ellipse)\b/));
    if (!area) return false;
    const inner = area.inner
      .replace(/(<rect\b[^>]*) width="[^"]*"/, '$1 width="0"')
      .replace(/points="[^"]*"/, 'points=""')
      .replace(/rx="[^"]*"/, 'rx="0"');
    file.relink(area, { inner });
    return true;
  },
};
