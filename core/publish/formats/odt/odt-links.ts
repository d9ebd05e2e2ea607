import { escapeXml } from "../../xhtml/escape-xml.ts";
import type { DocumentTarget } from "../text-document-links.ts";
import { attribute, textXml } from "./odt-xml.ts";

/** A link (part 3, 6.1.8) around its words. @param style the style of its words; null for that of the text around */
export function linkTo(
  target: DocumentTarget,
  description: string | null,
  content: string,
  style: string | null,
): string {
  // What is beside the document is one folder above what is in it (part 2, 3.7).
  const href =
    "place" in target ? `#${target.place}` : "file" in target ? `../${target.file}` : target.address;
  const look = style === null ? "" : ` text:style-name="${style}" text:visited-style-name="${style}"`;
  return `<text:a xlink:type="simple" xlink:href="${escapeXml(href)}"${attribute("office:title", description)}${look}>${content}</text:a>`;
}

/** A link that the document makes by itself. */
export function jump(place: string, words: string): string {
  return linkTo({ place }, null, textXml(words), null);
}
