import type { BroughtFile } from "./manuscript-reader.ts";

const save = "Open it in the program that made it, and save it as a text document (DOCX).";

/** Files that people bring as manuscripts and that no reader knows yet, by how their bytes begin, with what to do. */
const beginnings: readonly (readonly [start: readonly number[], what: string, advice: string])[] = [
  [[0x7b, 0x5c, 0x72, 0x74, 0x66], "rich text (RTF)", save],
  [
    [0x25, 0x50, 0x44, 0x46, 0x2d],
    "a PDF, in which the text of a book is set and not written",
    "Bring the document that it was made from.",
  ],
  [[0xd0, 0xcf, 0x11, 0xe0], "a text document of an older kind (DOC)", save],
];

/** What is wrong with a file that is known and cannot be read, and what to do; null for any other. */
export function adviceFor({ name, bytes }: BroughtFile): string | null {
  const told = (what: string, advice: string): string =>
    `“${name}” is ${what}, which Vennet cannot bring in yet. ${advice}`;
  for (const [start, what, advice] of beginnings)
    if (start.every((byte, i) => bytes[i] === byte)) return told(what, advice);
  const isEmpty = bytes.length < 10_000 && new TextDecoder().decode(bytes).trim() === "";
  return isEmpty ? `“${name}” has no words in it.` : null;
}
