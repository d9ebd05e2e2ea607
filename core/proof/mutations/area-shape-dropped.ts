import type { Mutation } from "./mutation.ts";

/** Nowhere on the picture takes a press. */
export const areaShapeDropped: Mutation = {
  name: "an area of a picture without its shape",
  pages(file, pick) {
    const area = pick(file.links(/<(rect|polygon|ellipse)\b/));
    if (area) file.relink(area, { inner: area.inner.replace(/<(rect|polygon|ellipse)\b[^>]*\/>/, "") });
    return area !== undefined;
  },
};
