import type { Mutation } from "./mutation.ts";

/** A press on the words of one reaches the other. */
export const rectanglesSwapped: Mutation = {
  name: "the areas of two links swapped",
  pdf(file, pick) {
    const links = file.links();
    const one = pick(links);
    const other = pick(
      links.filter(
        ({ page, ref }) => page.ref.number === one?.page.ref.number && ref.number !== one.ref.number,
      ),
    );
    if (!one || !other) return false;
    for (const [link, from] of [
      [one, other],
      [other, one],
    ] as const) {
      const next = new Map(link.dictionary).set("Rect", from.dictionary.get("Rect")!);
      const quads = from.dictionary.get("QuadPoints");
      if (quads === undefined) next.delete("QuadPoints");
      else next.set("QuadPoints", quads);
      file.objects.change(link.ref, next);
    }
    return true;
  },
};
