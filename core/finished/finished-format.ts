const latin = (bytes: Uint8Array): string => String.fromCharCode(...bytes.subarray(0, 1024));

/** The formats in which finished files are: what each is called on its way (RFC 6838), and how a file of it is known. */
const formats = {
  pdf: {
    mediaType: "application/pdf",
    // ISO 32000-1, 7.5.2; common practice: among the first bytes.
    accepts: (begin: Uint8Array) => /%PDF-\d/.test(latin(begin)),
  },
  epub: {
    mediaType: "application/epub+zip",
    // EPUB 3.3, 4.2.3: the first file of the container says so; many do not keep to it, and only their names tell.
    accepts: (begin: Uint8Array, name: string) =>
      /^PK\u0003\u0004/.test(latin(begin)) &&
      (latin(begin).includes("application/epub+zip") || /\.epub$/i.test(name)),
  },
};

export type FinishedFormat = keyof typeof formats;

export const finishedFormats = Object.keys(formats) as FinishedFormat[];

/** The format of a file, by its first bytes and its name; null where it is none in which finished files are. */
export function finishedFormatOf(begin: Uint8Array, fileName: string): FinishedFormat | null {
  return finishedFormats.find((format) => formats[format].accepts(begin, fileName)) ?? null;
}

/** What a file of a format is called on its way. */
export function mediaTypeOf(format: FinishedFormat): string {
  return formats[format].mediaType;
}
