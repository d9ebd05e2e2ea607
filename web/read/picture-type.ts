const types: Record<string, string> = {
  png: "image/png",
  jpg: "image/jpeg",
  jpeg: "image/jpeg",
  gif: "image/gif",
  svg: "image/svg+xml",
};

/** The media type of a picture in an exported file, by its name's ending; null where it is no picture. */
export function pictureType(path: string): string | null {
  return types[path.split(".").at(-1)?.toLowerCase() ?? ""] ?? null;
}
