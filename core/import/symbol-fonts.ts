import { codePoint } from "dingbat-to-unicode";

const symbolFonts = /^(?:symbol|webdings|wingdings(?: [23])?)$/i;
/** Where Unicode has letters for private use, by which programs write the 256 places of such a font. */
const privateFrom = 0xf000;
/** Arrows for which few fonts have a shape, in rows of eight, and those that nearly all have. */
const fineArrows = /[\u{1f850}-\u{1f857}\u{1f860}-\u{1f887}]/gu;
const usualArrows = "←↑→↓↖↗↘↙";

/** Whether letters of a font are signs: what stands in it as “à” is an arrow to readers. */
export function isSymbolFont(font: string | null | undefined): font is string {
  return typeof font === "string" && symbolFonts.test(font.trim());
}

/** The font that an element of a page gives its words by itself: the first by its style, or by its `face`; null where it gives none. */
export function fontOfElement(name: string, style: unknown, face: unknown): string | null {
  if (name === "font" && typeof face === "string") return face.split(",")[0]!.trim();
  const said = typeof style === "string" ? style : "";
  // The name of a font stands last in what says all of it at once, behind its size (CSS Fonts 4, 2.7).
  const [, family] =
    /(?:^|;)\s*font-family\s*:\s*["']?([^;,"']+)/i.exec(said) ??
    /(?:^|;)\s*font\s*:[^;]*?\d[\w.%]*(?:\s*\/\s*\S+)?\s+["']?([^;,"']+)/i.exec(said) ??
    [];
  return family?.trim() ?? null;
}

/**
 * Words in a font of symbols as the letters of Unicode that readers see there; a place of the font for which there is no
 * letter stays as it is.
 */
export function symbolsOf(font: string, words: string): string {
  return [...words]
    .map((letter) => {
      const code = letter.codePointAt(0)!;
      // A blank that cannot be broken is one in any font.
      if (code === 0xa0) return letter;
      const place = code >= privateFrom && code < privateFrom + 256 ? code - privateFrom : code;
      return codePoint(font.trim(), place)?.string ?? letter;
    })
    .join("")
    .replace(fineArrows, (arrow) => usualArrows[arrow.codePointAt(0)! & 7]!);
}
