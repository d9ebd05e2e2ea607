/** What a picture is, by its first bytes: one that every reader shows, or one that has to be drawn for them. */
export type PictureKind = "shown" | "svg" | "webp" | "avif";

/** What kind of picture bytes are; null for anything else. */
export function pictureKind(bytes: Uint8Array): PictureKind | null {
  const [a, b, c] = bytes;
  if ((a === 0x89 && b === 0x50) || (a === 0xff && b === 0xd8) || (a === 0x47 && b === 0x49 && c === 0x46))
    return "shown";
  const letters = (from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to));
  if (letters(0, 4) === "RIFF" && letters(8, 12) === "WEBP") return "webp";
  if (letters(4, 8) === "ftyp" && /avi[fs]/.test(letters(8, 40))) return "avif";
  return a === 0x3c || a === 0xef || a === 0x20 || a === 0x0a || a === 0x0d ? svgOrNothing(bytes) : null;
}

/** Whether bytes are a picture that a book can show, once it is drawn for all readers. */
export function isPicture(bytes: Uint8Array): boolean {
  return pictureKind(bytes) !== null;
}

/** An SVG begins with its element, behind what XML may have before one. */
function svgOrNothing(bytes: Uint8Array): "svg" | null {
  const start = new TextDecoder().decode(bytes.subarray(0, 8_000)).replace(/^\ufeff/, "");
  const before = /^\s*(<\?[\s\S]*?\?>\s*|<!--[\s\S]*?-->\s*|<!DOCTYPE[^[>]*(\[[\s\S]*?\]\s*)?>\s*)*/i;
  return /^<([\w-]+:)?svg[\s>]/i.test(start.replace(before, "")) ? "svg" : null;
}
