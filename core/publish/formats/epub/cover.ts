import type { Book } from "../../../manuscript/book.ts";
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
export function coverSvg({ title, author }: Pick<Book, "title" | "author">): string {
  const lines = broken(title, lettersOnLine).slice(0, mostLines);
  const words = lines.map(
    (line, i) =>
      `<text x="${margin}" y="${460 + i * titleSize * 1.2}" font-family="serif" font-weight="bold" font-size="${titleSize}">${escapeXml(line)}</text>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">
<rect width="${width}" height="${height}" fill="#f6f1e7"/>
<rect x="${margin}" y="240" width="${width - 2 * margin}" height="6" fill="#1d4f8f"/>
<g fill="#1c1a17">
${words.join("\n")}
<text x="${margin}" y="${height - 200}" font-family="serif" font-size="${authorSize}">${escapeXml(author)}</text>
</g>
</svg>
`;
}

/** Words in lines of at most so many letters; a longer word has a line of its own. */
function broken(text: string, most: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= most)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
