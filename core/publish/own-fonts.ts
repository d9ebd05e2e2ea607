import type { Book } from "../manuscript/book.ts";
import {
  fontUses,
  type BookFonts,
  type Embedding,
  type FontFace,
  type FontUse,
} from "../manuscript/book-fonts.ts";
import type { ExportWarning, ForeseenChange } from "./export-warning.ts";

/** A file into which fonts are put. */
export type FontMedium = "pdf" | "epub" | "web";

type WithFonts = Pick<Book, "fonts" | "fontFaces">;

const useWords: Record<FontUse, string> = { text: "The text", headings: "Headings", code: "Code" };

/**
 * Whether a font may be put into a file: a PDF has it cut down to the letters that are used, and whoever opens a web page
 * has a copy of it, which no font may be that is for viewing and printing alone (OpenType 1.9, OS/2 `fsType`).
 */
export function mayGoInto(medium: FontMedium, { permission, canBeSubset }: Embedding): boolean {
  if (permission === "restricted") return false;
  if (medium === "pdf") return canBeSubset;
  return medium === "epub" || permission !== "preview";
}

/** The families of the author's that set a book in such a file, and their faces. */
export function ownFonts({ fonts, fontFaces }: WithFonts, medium: FontMedium): OwnFonts {
  const usable = fontFaces.filter((face) => mayGoInto(medium, face));
  const has = (family: string | null): boolean => usable.some((face) => face.family === family);
  const chosen = Object.fromEntries(
    fontUses.map((use) => [use, has(fonts[use]) ? fonts[use] : null]),
  ) as BookFonts;
  const families = new Set(Object.values(chosen));
  return { fonts: chosen, faces: usable.filter(({ family }) => families.has(family)) };
}

/** What {@link ownFonts} finds. */
export interface OwnFonts {
  fonts: BookFonts;
  faces: FontFace[];
}

/** Which of the author's fonts such a file goes without, and why. */
export function foreseeFonts(book: WithFonts, medium: FontMedium): ForeseenChange[] {
  const { fonts } = ownFonts(book, medium);
  return fontUses
    .filter((use) => book.fonts[use] !== null && fonts[use] === null)
    .map((use) => {
      const family = book.fonts[use]!;
      const faces = book.fontFaces.filter((face) => face.family === family);
      const isAway = faces.length === 0;
      const reason = isAway
        ? "is not among the book’s fonts any more"
        : medium === "pdf"
          ? "may not be cut down to the letters that are used, as its maker says, and a PDF does so"
          : "may only be viewed and printed, as its maker says, and whoever opens a web page has a copy";
      const mend = isAway
        ? "Bring it in again, or choose another."
        : "Ask its maker for one that may, or choose another.";
      return {
        code: "font",
        chapter: null,
        at: null,
        message: `${useWords[use]} will be in the usual letters: “${family}” ${reason}. ${mend}`,
      };
    });
}

/** The same, as an export warns of it. */
export function fontWarnings(book: WithFonts, medium: FontMedium): ExportWarning[] {
  return foreseeFonts(book, medium).map(({ code, chapter, message }) => ({ code, chapter, message }));
}

/** How a face is told apart from others of its family by a style sheet, and where its bytes are. */
export function fontFaceRule({ family, weight, stretch, italic }: FaceName, source: string): string {
  return `@font-face { font-family: ${cssString(family)}; font-weight: ${weight}; font-stretch: ${stretch}%; font-style: ${italic ? "italic" : "normal"}; src: url("${source}"); }\n`;
}

/** The rules by which a book's text, headings and code are shown in these families. */
export function fontRules({ text, headings, code }: BookFonts): string {
  return [
    text === null ? "" : `html { font-family: ${cssString(text)}, serif; }\nbody { font-family: inherit; }\n`,
    headings === null ? "" : `h1, h2, h3, h4, h5 { font-family: ${cssString(headings)}, serif; }\n`,
    code === null ? "" : `pre, code { font-family: ${cssString(code)}, monospace; }\n`,
  ].join("");
}

type FaceName = Pick<FontFace, "family" | "weight" | "stretch" | "italic">;

/** A string as CSS has it (CSS Syntax 3, 4.3.5). */
function cssString(text: string): string {
  return `"${text.replace(/["\\\n<]/g, (sign) => `\\${sign.codePointAt(0)!.toString(16)} `)}"`;
}
