import { inAscii } from "../destination/in-ascii.ts";

/** A name (ISO 32000, 7.3.5), without its slash. */
export class PdfName {
  constructor(readonly name: string) {}
}

/** A name's letters; empty for what is none. */
export function nameOf(value: PdfValue | undefined): string {
  return value instanceof PdfName ? value.name : "";
}

/** A reference to an indirect object (7.3.10). Generations are 0 in all that this project reads. */
export class PdfRef {
  constructor(readonly number: number) {}
}

/** A string as its bytes, one character each (7.3.4). */
export class PdfString {
  constructor(readonly bytes: string) {}
}

/** A dictionary (7.3.7), in the order in which it is written. */
export type PdfDict = Map<string, PdfValue>;

/** What an object of a PDF may be, streams aside (7.3). */
export type PdfValue = null | boolean | number | PdfName | PdfString | PdfRef | PdfValue[] | PdfDict;

/** Words as a text string in UTF-16 (7.9.2.2). */
export function textString(words: string): PdfString {
  let bytes = "\u00fe\u00ff";
  for (let i = 0; i < words.length; i++) {
    const unit = words.charCodeAt(i);
    bytes += String.fromCharCode(unit >> 8, unit & 0xff);
  }
  return new PdfString(bytes);
}

/** The words of a text string (7.9.2.2), those of its own encoding as far as they are Latin-1; null for what is no string. */
export function readTextString(value: PdfValue | undefined): string | null {
  if (!(value instanceof PdfString)) return null;
  const { bytes } = value;
  return bytes.startsWith("\u00fe\u00ff") ? fromUtf16(bytes.slice(2)) : bytes;
}

/** Words in UTF-16, two bytes a unit, the higher first. */
export function fromUtf16(bytes: string): string {
  let words = "";
  for (let i = 0; i + 1 < bytes.length; i += 2)
    words += String.fromCharCode((bytes.charCodeAt(i) << 8) | bytes.charCodeAt(i + 1));
  return words;
}

/** An address as a string; addresses are ASCII (12.6.4.8). */
export function uriString(address: string): PdfString {
  return new PdfString(inAscii(address));
}

/** A value as it is written in a file, in Latin-1. */
export function writeValue(value: PdfValue): string {
  if (value === null) return "null";
  if (typeof value === "boolean") return String(value);
  if (typeof value === "number") return String(Math.round(value * 1000) / 1000);
  if (value instanceof PdfName) return writeName(value.name);
  if (value instanceof PdfRef) return `${value.number} 0 R`;
  if (value instanceof PdfString) return writeString(value.bytes);
  if (Array.isArray(value)) return `[${value.map(writeValue).join(" ")}]`;
  return `<<${[...value].map(([key, inner]) => `${writeName(key)} ${writeValue(inner)}`).join(" ")}>>`;
}

function writeName(name: string): string {
  const hex = (sign: string): string => `#${sign.charCodeAt(0).toString(16).padStart(2, "0")}`;
  return `/${name.replace(/[^\u0021-\u007e]|[#/()<>[\]{}%]/g, hex)}`;
}

function writeString(bytes: string): string {
  if (/^[\u0020-\u007e]*$/.test(bytes)) return `(${bytes.replace(/[\\()]/g, "\\$&")})`;
  let hex = "";
  for (let i = 0; i < bytes.length; i++) hex += bytes.charCodeAt(i).toString(16).padStart(2, "0");
  return `<${hex.toUpperCase()}>`;
}
