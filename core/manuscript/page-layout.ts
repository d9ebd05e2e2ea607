/** The sizes of paper that have a name, in millimetres. */
export const trimSizes = {
  a5: { width: 148, height: 210 },
  a4: { width: 210, height: 297 },
  letter: { width: 215.9, height: 279.4 },
  "6x9": { width: 152.4, height: 228.6 },
} as const;

export type TrimName = keyof typeof trimSizes | "own";

/** How the pages of a PDF are laid out. Lengths are millimetres. */
export interface PageLayout {
  trim: TrimName;
  /** Of a page, for a size that has no name. */
  width: number;
  height: number;
  /** Beside the binding, on the other side, above and below. */
  inner: number;
  outer: number;
  top: number;
  bottom: number;
  /** Points. */
  fontSize: number;
  /** Whether the book's title stands above even pages, and the chapter's above odd ones. */
  runningHeads: boolean;
  pageNumbers: "centre" | "outside" | "none";
  hyphenate: boolean;
}

export const defaultLayout: PageLayout = {
  trim: "a5",
  ...trimSizes.a5,
  inner: 19,
  outer: 19,
  top: 20,
  bottom: 22,
  fontSize: 10.5,
  runningHeads: false,
  pageNumbers: "centre",
  hyphenate: true,
};

/** A page's width and height in millimetres. */
export function pageSize({ trim, width, height }: PageLayout): { width: number; height: number } {
  return trim === "own" ? { width, height } : trimSizes[trim];
}

/** The width of the text in CSS px, of which 96 are an inch. */
export function textWidth(layout: PageLayout): number {
  return ((pageSize(layout).width - layout.inner - layout.outer) / 25.4) * 96;
}

/** Its height, in CSS px. */
export function textHeight(layout: PageLayout): number {
  return ((pageSize(layout).height - layout.top - layout.bottom) / 25.4) * 96;
}

const leastText = 50;

/**
 * Says whether a value read from outside is a page layout.
 * @throws RangeError with what is wrong
 */
export function assertLayout(value: unknown): asserts value is PageLayout {
  const given = (value ?? {}) as PageLayout;
  if (given.trim !== "own" && !Object.hasOwn(trimSizes, String(given.trim)))
    throw new RangeError("The size of the page is a4, a5, letter, 6x9 or own.");
  const between = (name: string, length: unknown, least: number, most: number, unit: string): void => {
    if (typeof length !== "number" || !(length >= least && length <= most))
      throw new RangeError(`The ${name} is from ${least} to ${most} ${unit}.`);
  };
  between("width of the page", given.width, 90, 450, "mm");
  between("height of the page", given.height, 120, 600, "mm");
  for (const side of ["inner", "outer", "top", "bottom"] as const)
    between(`${side} margin`, given[side], 8, 80, "mm");
  between("size of the letters", given.fontSize, 7, 24, "points");
  const { width, height } = pageSize(given);
  if (width - given.inner - given.outer < leastText || height - given.top - given.bottom < leastText)
    throw new RangeError(`The margins leave less than ${leastText} mm for the text.`);
  if (typeof given.runningHeads !== "boolean" || typeof given.hyphenate !== "boolean")
    throw new RangeError("Running heads and hyphens are there or not.");
  if (!["centre", "outside", "none"].includes(given.pageNumbers))
    throw new RangeError("Page numbers stand in the centre, outside, or not at all.");
}
