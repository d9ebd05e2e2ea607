import { strToU8, zipSync } from "fflate";

/** An e-book (EPUB 3.3) of some pages, each given as what is in its body, and further files by their paths. */
export function smallEpub(
  pages: Record<string, string>,
  files: Record<string, Uint8Array> = {},
  types: Record<string, string> = {},
): Uint8Array {
  const names = Object.keys(pages);
  const items = names.map(
    (name, i) => `<item id="p${i}" href="text/${name}" media-type="application/xhtml+xml"/>`,
  );
  const others = Object.entries(types).map(
    ([path, type], i) => `<item id="f${i}" href="${path}" media-type="${type}"/>`,
  );
  const metadata =
    '<metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">urn:uuid:a1b2c3d4-0000-4000-8000-000000000001</dc:identifier><dc:title>Tides</dc:title><dc:creator>Orla Tindrum</dc:creator><dc:language>en</dc:language><meta property="dcterms:modified">2026-01-01T00:00:00Z</meta></metadata>';
  const opf = `<?xml version="1.0"?><package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id">${metadata}<manifest>${items.join("")}${others.join("")}<item id="nav" href="nav.xhtml" properties="nav" media-type="application/xhtml+xml"/></manifest><spine><itemref idref="nav"/>${names.map((_, i) => `<itemref idref="p${i}"/>`).join("")}</spine></package>`;
  const page = (title: string, body: string): Uint8Array =>
    strToU8(
      `<?xml version="1.0"?><!DOCTYPE html><html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops"><head><title>${title}</title></head><body>${body}</body></html>`,
    );
  const contents = `<nav epub:type="toc"><ol>${names.map((name) => `<li><a href="text/${name}">${name}</a></li>`).join("")}</ol></nav>`;
  return zipSync({
    mimetype: [strToU8("application/epub+zip"), { level: 0 }],
    "META-INF/container.xml": strToU8(
      '<?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="OPS/book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>',
    ),
    "OPS/book.opf": strToU8(opf),
    "OPS/nav.xhtml": page("Contents", contents),
    ...Object.fromEntries(Object.entries(pages).map(([name, body]) => [`OPS/text/${name}`, page("x", body)])),
    ...files,
  });
}
