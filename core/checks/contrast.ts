import { paperColour, textColour, type OwnLook } from "../manuscript/looks.ts";

/**
 * The contrast ratio of two colours, written as #rrggbb, from 1 to 21 (WCAG 2.2, "contrast ratio" and
 * "relative luminance").
 */
export function contrastRatio(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** What WCAG says of the look of a link in running text. */
export interface JudgedLook {
  /** Against the paper; WCAG 2.2 SC 1.4.3 (AA) asks for 4.5. */
  onPaper: number;
  /** Against the text around it. */
  besideText: number;
  isReadable: boolean;
  /**
   * Whether it is told from the text around it: by an underline, or by a contrast of 3 with it (WCAG 2.2
   * SC 1.4.1 with techniques G182 and G183). Weight alone is not counted, since bold words are no links.
   */
  isTold: boolean;
}

/** Judges a look against the book's text and paper. */
export function judgeLook({ colour, underline }: OwnLook): JudgedLook {
  const onPaper = contrastRatio(colour, paperColour);
  const besideText = contrastRatio(colour, textColour);
  return { onPaper, besideText, isReadable: onPaper >= 4.5, isTold: underline !== "none" || besideText >= 3 };
}

function luminance(colour: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const share = parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
