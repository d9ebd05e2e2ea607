import type { Book } from "../../../manuscript/book.ts";
import { languageDirection } from "../../../manuscript/direction.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";

const width = 1200;
const height = 1800;
const margin = 120;
const titleSize = 116;
const authorSize = 56;
// Serif letters are about half as wide as they are high.
const lettersOnLine = Math.floor((width - 2 * margin) / (titleSize * 0.52));
const mostLines = 8;

/** A cover with the book's title and author, as a picture (SVG 1.1) that scales to every device. */
export function coverSvg({ title, author, language }: Pick<Book, "title" | "author" | "language">): string {
  const direction = languageDirection(language);
  const start = direction === "rtl" ? width - margin : margin;
  const lines = broken(title, lettersOnLine).slice(0, mostLines);
  const words = lines.map(
    (line, i) =>
      `<text x="${start}" y="${460 + i * titleSize * 1.2}" font-family="serif" font-weight="bold" font-size="${titleSize}">${escapeXml(line)}</text>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">
<rect width="${width}" height="${height}" fill="#f6f1e7"/>
<rect x="${margin}" y="240" width="${width - 2 * margin}" height="6" fill="#1d4f8f"/>
<g fill="#1c1a17" direction="${direction}">
${words.join("\n")}
<text x="${start}" y="${height - 200}" font-family="serif" font-size="${authorSize}">${escapeXml(author)}</text>
</g>
</svg>
`;
}

/** A letter of Chinese, Japanese or Korean is as wide as two, and a line may end behind it. */
const wide =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\u3000-\u303f\uff00-\uffef]/u;
const parts = new RegExp(`\\s*(?:${wide.source}|(?:(?!${wide.source})\\S)+)`, "gu");

/** Words in lines of at most so many letters; a longer word has a line of its own. */
function broken(text: string, most: number): string[] {
  const widthOf = (words: string): number =>
    [...words].reduce((sum, letter) => sum + (wide.test(letter) ? 2 : 1), 0);
  const lines: string[] = [];
  for (const [part] of text.matchAll(parts)) {
    const last = lines.at(-1);
    if (last !== undefined && widthOf(last + part) <= most) lines[lines.length - 1] = last + part;
    else lines.push(part.trim());
  }
  return lines;
}
