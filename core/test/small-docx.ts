import { strToU8, zipSync } from "fflate";
import { redDot } from "./red-dot.ts";

export const namespaces =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:a="a" xmlns:wp="wp" xmlns:pic="pic" xmlns:mc="mc" xmlns:wps="wps" xmlns:v="v" xmlns:m="m"';
export const type = (name: string): string =>
  `http://schemas.openxmlformats.org/officeDocument/2006/relationships/${name}`;

/** A document of some paragraphs, with further parts: their roots without what is around them. */
export function document(
  body: string,
  parts: Record<string, string> = {},
  links: Record<string, string> = {},
): Uint8Array {
  const rels = [
    ...Object.keys(parts).map(
      (name) => `<Relationship Id="${name}" Type="${type(name)}" Target="${name}.xml"/>`,
    ),
    ...Object.entries(links).map(
      ([id, to]) =>
        `<Relationship Id="${id}" Type="${type("hyperlink")}" Target="${to}" TargetMode="External"/>`,
    ),
    `<Relationship Id="map" Type="${type("image")}" Target="media/map.png"/>`,
  ];
  const inXml = (root: string): Uint8Array => strToU8(`<?xml version="1.0"?>${root}`);
  const relsIn = (all: string[]): Uint8Array => inXml(`<Relationships>${all.join("")}</Relationships>`);
  return zipSync({
    "[Content_Types].xml": inXml("<Types/>"),
    "_rels/.rels": relsIn([
      `<Relationship Id="d" Type="${type("officeDocument")}" Target="word/document.xml"/>`,
    ]),
    "word/document.xml": inXml(`<w:document ${namespaces}><w:body>${body}</w:body></w:document>`),
    "word/_rels/document.xml.rels": relsIn(rels),
    "word/_rels/footnotes.xml.rels": relsIn(rels),
    "word/media/map.png": redDot,
    ...Object.fromEntries(
      Object.entries(parts).map(([name, root]) => [
        `word/${name}.xml`,
        inXml(root.replace(/^<(w:\w+)/, `<$1 ${namespaces}`)),
      ]),
    ),
  });
}
export const p = (...content: string[]): string => `<w:p>${content.join("")}</w:p>`;
export const styled = (style: string, ...content: string[]): string =>
  p(`<w:pPr><w:pStyle w:val="${style}"/></w:pPr>`, ...content);
export const t = (words: string, properties = ""): string =>
  `<w:r>${properties && `<w:rPr>${properties}</w:rPr>`}<w:t xml:space="preserve">${words}</w:t></w:r>`;
