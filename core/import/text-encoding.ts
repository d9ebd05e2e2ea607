/** A text, and the encoding that it was read in. */
export interface DecodedText {
  text: string;
  /** Null for UTF-8 and UTF-16, which leave no doubt; else what was guessed. */
  guessed: string | null;
}

/**
 * The text of a file: in UTF-8, in UTF-16 by its mark or by its zero bytes, else in Windows-1252, which has all of
 * Latin-1. Null for what is no text.
 */
export function decodeText(bytes: Uint8Array): DecodedText | null {
  const sound = (text: string, guessed: string | null): DecodedText | null =>
    /[\0-\x08\x0e-\x1a\x1c-\x1f]/.test(text) ? null : { text, guessed };
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return sound(new TextDecoder("utf-16le").decode(bytes), null);
  if (a === 0xfe && b === 0xff) return sound(new TextDecoder("utf-16be").decode(bytes), null);
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    if (!text.includes("\0")) return sound(text, null);
  } catch {
    // Not in UTF-8.
  }
  const zeros = [0, 0];
  for (let i = 0; i < Math.min(bytes.length, 2_000); i++) if (bytes[i] === 0) zeros[i % 2]! += 1;
  // A few bytes tell nothing.
  const mostly = bytes.length < 16 ? Infinity : Math.min(bytes.length, 2_000) / 4;
  if (zeros[1]! > mostly) return sound(new TextDecoder("utf-16le").decode(bytes), "UTF-16");
  if (zeros[0]! > mostly) return sound(new TextDecoder("utf-16be").decode(bytes), "UTF-16");
  return sound(new TextDecoder("windows-1252").decode(bytes), "Latin-1 (Windows-1252)");
}

/** The text of a page, in the encoding that it says it has (HTML, 13.2.3; XML 1.0, 4.3.3), else in UTF-8. */
export function decodePage(bytes: Uint8Array): string {
  const start = new TextDecoder("latin1").decode(bytes.subarray(0, 1024));
  const said =
    /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(start)?.[1] ??
    /^<\?xml[^>]+encoding\s*=\s*["']([\w-]+)/i.exec(start)?.[1];
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder("utf-16le").decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder("utf-16be").decode(bytes);
  try {
    return new TextDecoder(said ?? "utf-8").decode(bytes);
  } catch {
    // An encoding that nobody knows.
    return new TextDecoder().decode(bytes);
  }
}
