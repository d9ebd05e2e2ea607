import type { Mutation } from "./mutation.ts";

/** A screen reader says nothing of where it leads. */
export const areaNameDropped: Mutation = {
  name: "an area of a picture without a name",
  pages(file, pick) {
    const area = pick(file.links(/<title>/));
    if (area) file.relink(area, { inner: area.inner.replace(/<title>.*?<\/title>/s, "") });
    return area !== undefined;
  },
};
