import type { Mutation } from "./mutation.ts";

/** A press on its words reaches nothing. */
export const quadrilateralsMoved: Mutation = {
  name: "the lines of a link’s area moved, its rectangle kept",
  pdf(file, pick) {
    const link = pick(file.links().filter(({ dictionary }) => dictionary.has("QuadPoints")));
    if (!link) return false;
    const points = file.objects.read(link.dictionary.get("QuadPoints")) as number[];
    file.set(
      link,
      "QuadPoints",
      points.map((value, i) => (i % 2 === 1 ? value + 60 : value)),
    );
    return true;
  },
};
