import type { Mutation } from "./mutation.ts";

/** A press on what is shown reaches nothing. */
export const areaShifted: Mutation = {
  name: "an area beside what it is to cover",
  pages(file, pick) {
    const area = pick(file.links(/<(rect|polygon|ellipse)\b/));
    if (!area) return false;
    const moved = (_: string, name: string, value: string): string => ` ${name}="${Number(value) + 40}"`;
    const inner = area.inner
      .replace(/ (x|cx)="([^"]*)"/, moved)
      .replace(
        /points="([^"]*)"/,
        (_, points: string) =>
          `points="${points.replace(/(-?[\d.]+),/g, (__, x: string) => `${Number(x) + 40},`)}"`,
      );
    file.relink(area, { inner });
    return true;
  },
};
