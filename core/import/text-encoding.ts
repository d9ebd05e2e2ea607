import { writableText } from "../manuscript/writable-text.ts";

/** A text, and the encoding that it was read in. */
export interface DecodedText {
  text: string;
  /** Null for UTF-8 and UTF-16, which leave no doubt; else what was guessed. */
  guessed: string | null;
}

/** So many letters a text has for each sign that is none of a text; files that are no text have many more. */
const lettersForEach = 200;

/**
 * The text of a file: in UTF-8, in UTF-16 by its mark or by its zero bytes, else in Windows-1252, which has all of
 * Latin-1. Breaks of pages and lines that stand for themselves are breaks of lines; a few signs that no text has are left
 * out. Null for what is no text.
 */
export function decodeText(bytes: Uint8Array): DecodedText | null {
  const sound = (text: string, guessed: string | null): DecodedText | null =>
    (text.match(/[\0-\x08\x0e-\x1a\x1c-\x1f]/g)?.length ?? 0) * lettersForEach > text.length
      ? null
      : { text: writableText(text.replace(/[\v\f]/g, "\n")), guessed };
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return sound(new TextDecoder("utf-16le").decode(bytes), null);
  if (a === 0xfe && b === 0xff) return sound(new TextDecoder("utf-16be").decode(bytes), null);
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    if (zerosIn(text) * lettersForEach <= text.length) return sound(text, null);
  } catch {
    // Not in UTF-8.
  }
  const zeros = [0, 0];
  for (let i = 0; i < Math.min(bytes.length, 2_000); i++) if (bytes[i] === 0) zeros[i % 2]! += 1;
  // A few bytes tell nothing.
  const mostly = bytes.length < 16 ? Infinity : Math.min(bytes.length, 2_000) / 4;
  if (zeros[1]! > mostly) return sound(new TextDecoder("utf-16le").decode(bytes), "UTF-16");
  if (zeros[0]! > mostly) return sound(new TextDecoder("utf-16be").decode(bytes), "UTF-16");
  return sound(textIn("windows-1252", bytes), "Latin-1 (Windows-1252)");
}

/**
 * The text of a page, in the encoding that its first bytes tell or it says it has (WHATWG HTML, 13.2.3; XML 1.0, 4.3.3 and
 * F.1), else in UTF-8, and where it is none in Windows-1252.
 */
export function decodePage(bytes: Uint8Array): string {
  const wide = inSixteenBits(bytes);
  if (wide !== null) return new TextDecoder(wide).decode(bytes);
  const start = new TextDecoder("latin1").decode(bytes.subarray(0, 1024));
  const said =
    /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(start)?.[1] ??
    /^<\?xml[^>]+encoding\s*=\s*["']([\w-]+)/i.exec(start)?.[1];
  if (said !== undefined && !/^utf-?16/i.test(said)) {
    try {
      return textIn(said, bytes);
    } catch {
      // An encoding that nobody knows.
    }
  }
  const text = textIn("utf-8", bytes);
  return said === undefined && isHardlyUtf8(text) ? textIn("windows-1252", bytes) : text;
}

function zerosIn(text: string): number {
  return text.match(/\0/g)?.length ?? 0;
}

/** Whether of a text that was read as UTF-8 more letters beyond ASCII are none than are some: a few may be damaged. */
function isHardlyUtf8(text: string): boolean {
  if (!text.includes("\ufffd")) return false;
  const beyond = text.match(/[^\0-\x7f]/g) ?? [];
  return beyond.filter((letter) => letter === "\ufffd").length * 2 > beyond.length;
}

/** In pieces, since Node.js 20 takes bytes that it decodes at once for Latin-1, which has no “ and no €. */
function textIn(encoding: string, bytes: Uint8Array): string {
  const decoder = new TextDecoder(encoding);
  return decoder.decode(bytes, { stream: true }) + decoder.decode();
}

/** Which kind of UTF-16 a page begins in, by its mark or by the zeros beside its first sign; null for neither. */
function inSixteenBits([a, b, c, d]: Uint8Array): "utf-16le" | "utf-16be" | null {
  if ((a === 0xff && b === 0xfe) || (a === 0x3c && b === 0 && c !== 0 && d === 0)) return "utf-16le";
  if ((a === 0xfe && b === 0xff) || (a === 0 && b === 0x3c && c === 0 && d !== 0)) return "utf-16be";
  return null;
}
