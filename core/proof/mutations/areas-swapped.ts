import type { Mutation } from "./mutation.ts";

/** Each area leads where the other should. */
export const areasSwapped: Mutation = {
  name: "the shapes of two areas swapped",
  pages(file, pick) {
    const areas = file.links(/<(rect|polygon|ellipse)\b/);
    const shapeOf = (inner: string): string => /<(rect|polygon|ellipse)\b[^>]*\/>/.exec(inner)![0];
    const one = pick(areas);
    const other = pick(
      areas.filter(({ inner, path }) => one && path === one.path && shapeOf(inner) !== shapeOf(one.inner)),
    );
    if (!one || !other) return false;
    file.swap(one, other, (area, from) => {
      const { tag, inner } = area as typeof one;
      return `<a${tag}>${inner.replace(shapeOf(inner), () => shapeOf((from as typeof one).inner))}</a>`;
    });
    return true;
  },
};
