import { attributeXml, escapeXml } from "../../xhtml/escape-xml.ts";

const names = {
  office: "office",
  text: "text",
  table: "table",
  draw: "drawing",
  style: "style",
  meta: "meta",
  manifest: "manifest",
} as const;

/** The namespaces of a part (OpenDocument 1.3, part 3, 1.4). */
export const namespaces = [
  ...Object.entries(names).map(
    ([prefix, name]) => `xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`,
  ),
  'xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0"',
  'xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0"',
  'xmlns:xlink="http://www.w3.org/1999/xlink"',
  'xmlns:dc="http://purl.org/dc/elements/1.1/"',
].join(" ");

/** A part of the document, whole. */
export function part(root: string, content: string): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n<${root} ${namespaces} office:version="1.3">${content}</${root}>`;
}

/** Text whose blanks and lines stay as they are (part 3, 6.1.2). @param whole whether blanks at its ends count, too */
export function textXml(text: string, whole = false): string {
  const blanks = whole ? / {2,}|^ | $|\n /g : / {2,}/g;
  return escapeXml(text)
    .replace(blanks, (found) => {
      const line = found.startsWith("\n") ? "\n" : "";
      return `${line}<text:s text:c="${found.length - line.length}"/>`;
    })
    .replace(/\n/g, "<text:line-break/>")
    .replace(/\t/g, "<text:tab/>");
}

/** An attribute; nothing where there is no value. */
export function attribute(name: string, value: string | null): string {
  return value === null ? "" : ` ${name}="${attributeXml(value)}"`;
}
