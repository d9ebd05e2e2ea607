const latin = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 1024));

/** The formats in which finished files are: what each is called on its way (RFC 6838), and how a file of it begins. */
const formats = {
  pdf: {
    mediaType: "application/pdf",
    // ISO 32000-1, 7.5.2; common practice: among the first bytes.
    accepts: (begin: Uint8Array) => /%PDF-\d/.test(latin(begin)),
  },
  epub: {
    mediaType: "application/epub+zip",
    // EPUB 3.3, 4.2.3: the first file of the container says so, not packed.
    accepts: (begin: Uint8Array) => /^PK[^]{28}mimetype[^]*application\/epub\+zip/.test(latin(begin)),
  },
};

export type FinishedFormat = keyof typeof formats;

export const finishedFormats = Object.keys(formats) as FinishedFormat[];

/** The format of a file, by its first bytes; null where it is none in which finished files are. */
export function finishedFormatOf(begin: Uint8Array): FinishedFormat | null {
  return finishedFormats.find((name) => formats[name].accepts(begin)) ?? null;
}

/** What a file of a format is called on its way. */
export function mediaTypeOf(format: FinishedFormat): string {
  return formats[format].mediaType;
}
