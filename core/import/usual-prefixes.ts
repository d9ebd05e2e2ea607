/** The prefixes by which namespaces are called nearly everywhere (OpenDocument 1.3, part 3, 1.4; ECMA-376-1, annex A). */
const usual: Readonly<Record<string, string>> = {
  "http://www.w3.org/1999/xlink": "xlink",
  "http://purl.org/dc/elements/1.1/": "dc",
  "http://schemas.openxmlformats.org/wordprocessingml/2006/main": "w",
  "http://purl.oclc.org/ooxml/wordprocessingml/main": "w",
  "http://schemas.openxmlformats.org/officeDocument/2006/relationships": "r",
  "http://purl.oclc.org/ooxml/officeDocument/relationships": "r",
  "http://schemas.openxmlformats.org/drawingml/2006/main": "a",
  "http://purl.oclc.org/ooxml/drawingml/main": "a",
  "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing": "wp",
  "http://purl.oclc.org/ooxml/drawingml/wordprocessingDrawing": "wp",
  "http://schemas.openxmlformats.org/officeDocument/2006/math": "m",
  "http://purl.oclc.org/ooxml/officeDocument/math": "m",
  "http://schemas.openxmlformats.org/markup-compatibility/2006": "mc",
  "urn:schemas-microsoft-com:vml": "v",
};
const ofOpenDocument = /^urn:oasis:names:tc:opendocument:xmlns:([\w-]+):1\.0$/;
const shortOfOpenDocument: Readonly<Record<string, string>> = {
  drawing: "draw",
  "svg-compatible": "svg",
  "xsl-fo-compatible": "fo",
  datastyle: "number",
};

interface Tag {
  name: string;
  attributes: Record<string, string>;
}

/**
 * The names of a file's elements and attributes as they are nearly everywhere: a file may call its namespaces by other
 * prefixes (Namespaces in XML 1.0), or those of its elements by none.
 */
export class UsualPrefixes {
  private readonly others = new Map<string, string>();
  private isRoot = true;

  /** A tag that opens, with what it declares. */
  tag({ name, attributes }: Tag): Tag {
    for (const [key, uri] of Object.entries(attributes)) {
      if (!key.startsWith("xmlns") || (key === "xmlns" && !this.isRoot)) continue;
      const prefix = key.slice("xmlns:".length);
      const [, short = ""] = ofOpenDocument.exec(uri) ?? [];
      const known = usual[uri] ?? shortOfOpenDocument[short] ?? short;
      if (known !== "" && known !== prefix) this.others.set(prefix, known);
    }
    this.isRoot = false;
    if (this.others.size === 0) return { name, attributes };
    const renamed = Object.entries(attributes).map(([key, value]) => [
      key.includes(":") ? this.name(key) : key,
      value,
    ]);
    return { name: this.name(name), attributes: Object.fromEntries(renamed) as Record<string, string> };
  }

  /** The name of an element. */
  name(name: string): string {
    const at = name.indexOf(":");
    const known = this.others.get(name.slice(0, Math.max(0, at)));
    return known === undefined ? name : `${known}:${name.slice(at + 1)}`;
  }
}
