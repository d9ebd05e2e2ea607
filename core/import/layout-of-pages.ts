import { assertLayout, defaultLayout, trimSizes, type PageLayout } from "../manuscript/page-layout.ts";

/** A page of a document with its margins, in millimetres. */
export interface PageOfDocument {
  width: number;
  height: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Programs round lengths to their own units. */
const near = 1;

/** The layout of a book whose pages are like those of a document; null where a book cannot have such pages. */
export function layoutOfPages({
  width,
  height,
  left,
  right,
  top,
  bottom,
}: PageOfDocument): PageLayout | null {
  const size = { width: rounded(width), height: rounded(height) };
  const named = Object.entries(trimSizes).find(
    ([, trim]) => Math.abs(trim.width - width) < near && Math.abs(trim.height - height) < near,
  );
  const layout = {
    ...defaultLayout,
    ...(named ? { trim: named[0], ...named[1] } : { trim: "own", ...size }),
    inner: rounded(left),
    outer: rounded(right),
    top: rounded(top),
    bottom: rounded(bottom),
  };
  try {
    assertLayout(layout);
    return layout;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return null;
  }
}

function rounded(length: number): number {
  return Math.round(length * 10) / 10;
}
