import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from "fflate";
import { entryDate } from "../../export-folder.ts";
import { languageDirection } from "../../../manuscript/direction.ts";
import { attributeXml, escapeXml } from "../../xhtml/escape-xml.ts";
import { withDirections } from "./directions-of-docx.ts";

/** A link as it is to be in the finished document, by the anchor that marks it in the library's. */
export interface DocxLink {
  marker: string;
  to: { address: string } | { place: string };
  description: string | null;
}

/** What is known of a document besides what the library was given. */
interface ToFinish {
  links: readonly DocxLink[];
  /** What it says for coming back; at least one thing. */
  properties: readonly { name: string; value: string }[];
  /** ISO 8601. */
  modified: string;
  /** Of the book, a tag of BCP 47. */
  language: string;
}

const hyperlinkType = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/hyperlink";

/**
 * Puts each link's true destination and its description in place of its marker (ECMA-376 part 1, 17.16.22:
 * `w:tooltip`), outer ones as relationships of their part, and the times of the manuscript in place of the
 * clock's and numbers from 1 in place of the library's, which counts through all documents, so that the same book gives
 * the same bytes.
 */
export function finishDocx(
  packed: Uint8Array,
  { links, properties, modified, language }: ToFinish,
): Uint8Array {
  const files = unzipSync(packed);
  const byMarker = new Map(links.map((link) => [link.marker, link]));
  const bookmarks = new Renumbered();
  const drawings = new Renumbered();
  for (const part of ["document", "footnotes"]) {
    const path = `word/${part}.xml`;
    const relationships: string[] = [];
    const xml = strFromU8(files[path]!).replace(
      /<w:hyperlink w:history="1" w:anchor="(vennet-link-\d+)">/g,
      (_, marker: string) => {
        const { to, description } = byMarker.get(marker)!;
        const tooltip = description === null ? "" : ` w:tooltip="${attributeXml(description)}"`;
        if ("place" in to) return `<w:hyperlink w:history="1" w:anchor="${to.place}"${tooltip}>`;
        const id = `link-${relationships.length + 1}`;
        relationships.push(
          `<Relationship Id="${id}" Type="${hyperlinkType}" Target="${escapeXml(to.address)}" TargetMode="External"/>`,
        );
        return `<w:hyperlink w:history="1" r:id="${id}"${tooltip}>`;
      },
    );
    files[path] = strToU8(
      withDirections(withPictureLinks(xml), languageDirection(language))
        .replace(
          /(<w:bookmark(?:Start|End)\b[^>]*? w:id=")(\d+)/g,
          (_, before: string, id: string) => before + bookmarks.of(id),
        )
        .replace(/(<wp:docPr id=")(\d+)/g, (_, before: string, id: string) => before + drawings.of(id)),
    );
    const list = `word/_rels/${part}.xml.rels`;
    files[list] = strToU8(withRelationships(strFromU8(files[list]!), relationships));
  }
  const custom = "docProps/custom.xml";
  files[custom] = strToU8(withProperties(strFromU8(files[custom]!), properties));
  const core = "docProps/core.xml";
  files[core] = strToU8(
    strFromU8(files[core]!).replace(/(<dcterms:(?:created|modified)[^>]*>)[^<]*/g, `$1${modified}`),
  );
  const out: Zippable = {};
  for (const [path, bytes] of Object.entries(files)) out[path] = [bytes, { mtime: entryDate, level: 6 }];
  return zipSync(out);
}

/**
 * The links that the library gives to linked pictures themselves, by names that nothing has, lead where the link around
 * each leads; where that is a place of the document the link around is enough (ECMA-376 part 1, 20.1.2.2.23).
 */
function withPictureLinks(xml: string): string {
  let around: string | null = null;
  return xml.replace(/<w:hyperlink\b[^>]*>|<\/w:hyperlink>|<a:hlinkClick\b[^>]*\/>/g, (tag) => {
    if (tag.startsWith("<a:hlinkClick"))
      return around === null ? "" : tag.replace(/r:id="[^"]*"/, `r:id="${around}"`);
    around = /r:id="([^"]*)"/.exec(tag)?.[1] ?? null;
    return tag;
  });
}

function withRelationships(list: string, more: string[]): string {
  const end = "</Relationships>";
  // Addresses may hold what a replacement would read as a sign, so nothing is replaced by them.
  const open = list.replace(/<Relationships([^>]*?)\/>\s*$/, `<Relationships$1>${end}`);
  const at = open.lastIndexOf(end);
  return open.slice(0, at) + more.join("") + open.slice(at);
}

/** The custom properties of a document (ECMA-376 part 1, 22.3), counted from 2 (22.3.2.2, from memory). */
function withProperties(xml: string, properties: ToFinish["properties"]): string {
  const format = "{D5CDD505-2E9C-101B-9397-08002B2CF9AE}";
  const written = properties.map(
    ({ name, value }, i) =>
      `<property fmtid="${format}" pid="${i + 2}" name="${attributeXml(name)}"><vt:lpwstr>${escapeXml(value)}</vt:lpwstr></property>`,
  );
  const from = xml.indexOf("<property ");
  return xml.slice(0, from) + written.join("") + xml.slice(xml.lastIndexOf("</Properties>"));
}

/** Numbers in the order in which they are first met. */
class Renumbered {
  private readonly numbers = new Map<string, number>();

  of(id: string): string {
    if (!this.numbers.has(id)) this.numbers.set(id, this.numbers.size + 1);
    return String(this.numbers.get(id));
  }
}
