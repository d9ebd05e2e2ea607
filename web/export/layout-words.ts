import type { PageLayout, TrimName } from "@vennet/core/manuscript/page-layout";

/** The sizes of pages, and how they are called. */
export const sizes: [TrimName, string][] = [
  ["a5", "A5"],
  ["a4", "A4"],
  ["letter", "US Letter"],
  ["6x9", "6 × 9 in"],
  ["own", "its own"],
];

/** What the pages of a layout are, in a few words. */
export function layoutWords({ trim, width, height, fontSize, runningHeads }: PageLayout): string {
  const size = trim === "own" ? `${width} × ${height} mm` : sizes.find(([name]) => name === trim)![1];
  return `${size}, font size ${fontSize} pt${runningHeads ? ", running heads" : ""}`;
}
