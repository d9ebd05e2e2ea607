import type { Mutation } from "./mutation.ts";

/** A press goes through it. */
export const areaTakesNoPress: Mutation = {
  name: "an area of a picture that takes no press",
  pages(file, pick) {
    const area = pick(file.links(/<(rect|polygon|ellipse)\b/));
    if (area)
      file.relink(area, { inner: area.inner.replace("fill-opacity", 'pointer-events="none" fill-opacity') });
    return area !== undefined;
  },
};
