/** What of a book may be set in letters that the author brought. */
export const fontUses = ["text", "headings", "code"] as const;
export type FontUse = (typeof fontUses)[number];

/** The families of the author's own, by what is set in them; null for the usual. */
export type BookFonts = Record<FontUse, string | null>;

export const usualFonts: BookFonts = { text: null, headings: null, code: null };

/** What the maker of a font lets others do with it in a file (OpenType 1.9, OS/2 `fsType`, bits 0 to 3). */
export type Permission = "installable" | "editable" | "preview" | "restricted";

/** How a font may be embedded. */
export interface Embedding {
  permission: Permission;
  /** Whether it may be cut down to the letters that are used (bit 8). */
  canBeSubset: boolean;
}

/** What is known of one face of a family. */
export interface FaceFacts extends Embedding {
  /** As the typesetter knows it. */
  family: string;
  /** 100 to 900. */
  weight: number;
  italic: boolean;
  /** Its width, in hundredths of the normal one. */
  stretch: number;
}

/** A face whose letters may go into a file. */
export interface FontFace extends FaceFacts {
  mediaType: "font/ttf" | "font/otf";
  bytes: Uint8Array;
}

/** How the name of a font file ends, by its media type. */
export const fontSuffix: Record<FontFace["mediaType"], string> = { "font/ttf": "ttf", "font/otf": "otf" };

/**
 * Says whether a value read from outside is a choice of fonts.
 * @throws RangeError with what is wrong
 */
export function assertFonts(value: unknown): asserts value is BookFonts {
  const given = (value ?? {}) as BookFonts;
  for (const use of fontUses) {
    const family: unknown = given[use];
    if (family !== null && (typeof family !== "string" || family === "" || family.length > 200))
      throw new RangeError(`The font for ${use} is the name of a family, or null for the usual.`);
  }
}
