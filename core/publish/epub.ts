import { strToU8, zipSync, type Zippable } from "fflate";
import { pictureSuffix, picturesIn, placeIndex, usedPictures, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { placesOf } from "../manuscript/outline.ts";
import { chapterXhtml, escapeXml } from "./xhtml.ts";

const style = `body { font-family: serif; line-height: 1.5; margin: 0 4%; }
h1, h2, h3, h4, h5 { line-height: 1.25; text-align: left; hyphens: none; }
h1 { margin: 2em 0 1em; }
img { max-width: 100%; height: auto; }
pre { white-space: pre-wrap; font-size: 0.85em; }
table { border-collapse: collapse; margin: 1em 0; }
th, td { border: 1px solid; padding: 0.3em 0.5em; text-align: left; vertical-align: top; }
td.center, th.center { text-align: center; }
td.right, th.right { text-align: right; }
blockquote { margin: 1em 1.5em; }
.notes { margin-top: 2em; border-top: 1px solid; font-size: 0.9em; }
.note-number { margin-bottom: 0; }
.title-page { text-align: center; margin-top: 20%; }
`;

// The earliest date that a zip entry can hold; a fixed one makes the same book the same bytes.
const entryDate = new Date(1980, 0, 1);

/**
 * Writes a book as EPUB 3.3 (W3C): one XHTML file a chapter, a navigation document, and accessibility
 * metadata (EPUB Accessibility 1.1). The same book gives the same bytes.
 * @returns the bytes of the container, `mimetype` first and stored (OCF 3.3, 4.3).
 */
export function writeEpub(book: Book): Uint8Array {
  const places = placeIndex(book);
  const used = usedPictures(book);
  const pictures = book.pictures.filter((picture) => used.has(picture.id));
  const chapterName = (i: number): string => `chapter-${String(i + 1).padStart(3, "0")}.xhtml`;
  const pictureName = (id: string): string | null => {
    const picture = pictures.find((candidate) => candidate.id === id);
    return picture ? `picture-${id}.${pictureSuffix[picture.mediaType]}` : null;
  };
  const text = (content: string): Zippable[string] => [strToU8(content), { mtime: entryDate, level: 6 }];
  const files: Zippable = {
    mimetype: [strToU8("application/epub+zip"), { mtime: entryDate, level: 0 }],
    "META-INF/container.xml": text(
      `<?xml version="1.0" encoding="UTF-8"?>
<container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/></rootfiles></container>
`,
    ),
    "EPUB/package.opf": text(
      packageDocument(
        book,
        chapterName,
        pictures.map((p) => [pictureName(p.id)!, p.mediaType]),
      ),
    ),
    "EPUB/nav.xhtml": text(navigationDocument(book, chapterName)),
    "EPUB/style.css": text(style),
    "EPUB/title.xhtml": text(
      page(
        book,
        book.title,
        `<section class="title-page" epub:type="titlepage"><h1>${escapeXml(book.title)}</h1><p>${escapeXml(book.author)}</p></section>`,
      ),
    ),
  };
  book.chapters.forEach(({ doc }, i) => {
    const body = chapterXhtml(doc, {
      places,
      chapter: i,
      chapterHref: chapterName,
      pictureHref: pictureName,
      usedIds: new Set(),
    });
    files[`EPUB/${chapterName(i)}`] = text(page(book, chapterTitle(doc), body));
  });
  for (const picture of pictures) {
    files[`EPUB/${pictureName(picture.id)!}`] = [picture.bytes, { mtime: entryDate, level: 0 }];
  }
  return zipSync(files);
}

function page(book: Book, title: string, body: string): string {
  const lang = escapeXml(book.language);
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${lang}" xml:lang="${lang}">
<head><title>${escapeXml(title || book.title)}</title><link rel="stylesheet" type="text/css" href="style.css"/></head>
<body>
${body}
</body>
</html>
`;
}

function packageDocument(
  book: Book,
  chapterName: (i: number) => string,
  pictures: [name: string, mediaType: string][],
): string {
  const allDescribed = picturesHaveAlternatives(book);
  const hasPictures = pictures.length > 0;
  const meta = (property: string, value: string): string =>
    `    <meta property="schema:${property}">${escapeXml(value)}</meta>`;
  const accessibility = [
    meta("accessMode", "textual"),
    ...(hasPictures ? [meta("accessMode", "visual")] : []),
    // Text alone is enough only where every picture has words.
    meta("accessModeSufficient", allDescribed ? "textual" : "textual,visual"),
    ...["tableOfContents", "readingOrder", "structuralNavigation", "displayTransformability"].map((feature) =>
      meta("accessibilityFeature", feature),
    ),
    ...(hasPictures && allDescribed ? [meta("accessibilityFeature", "alternativeText")] : []),
    meta("accessibilityHazard", "none"),
    meta(
      "accessibilitySummary",
      allDescribed
        ? "Reflowable text with headings, a table of contents and linked notes; every picture has a text alternative."
        : "Reflowable text with headings, a table of contents and linked notes; some pictures have no text alternative.",
    ),
  ].join("\n");
  const manifest = [
    `    <item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/>`,
    `    <item id="style" href="style.css" media-type="text/css"/>`,
    `    <item id="title" href="title.xhtml" media-type="application/xhtml+xml"/>`,
    ...book.chapters.map(
      (_, i) =>
        `    <item id="chapter-${i + 1}" href="${chapterName(i)}" media-type="application/xhtml+xml"/>`,
    ),
    ...pictures.map(
      ([name, type], i) => `    <item id="picture-${i + 1}" href="${name}" media-type="${type}"/>`,
    ),
  ].join("\n");
  const spine = [
    `    <itemref idref="title"/>`,
    `    <itemref idref="nav"/>`,
    ...book.chapters.map((_, i) => `    <itemref idref="chapter-${i + 1}"/>`),
  ].join("\n");
  return `<?xml version="1.0" encoding="UTF-8"?>
<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id" xml:lang="${escapeXml(book.language)}">
  <metadata xmlns:dc="http://purl.org/dc/elements/1.1/">
    <dc:identifier id="id">urn:uuid:${escapeXml(book.id)}</dc:identifier>
    <dc:title>${escapeXml(book.title)}</dc:title>
    <dc:language>${escapeXml(book.language)}</dc:language>
    <dc:creator>${escapeXml(book.author)}</dc:creator>
    <meta property="dcterms:modified">${book.modified.replace(/\.\d+Z$/, "Z")}</meta>
${accessibility}
  </metadata>
  <manifest>
${manifest}
  </manifest>
  <spine>
${spine}
  </spine>
</package>
`;
}

function picturesHaveAlternatives(book: Book): boolean {
  return picturesIn(book).every(({ alt, decorative }) => decorative || alt.trim() !== "");
}

interface ContentsEntry {
  level: number;
  href: string;
  text: string;
  children: ContentsEntry[];
}

function navigationDocument(book: Book, chapterName: (i: number) => string): string {
  const places = placeIndex(book);
  const root: ContentsEntry[] = [];
  book.chapters.forEach(({ doc }, i) => {
    const open: ContentsEntry[] = [];
    for (const place of placesOf(doc)) {
      // Headings of the two upper levels are enough to find one's way by.
      if (place.level === null || place.level > 2 || place.text === "" || places.get(place.id) !== i)
        continue;
      const entry = {
        level: place.level,
        href: `${chapterName(i)}#${place.id}`,
        text: place.text,
        children: [],
      };
      while (open.length > 0 && open.at(-1)!.level >= entry.level) open.pop();
      (open.at(-1)?.children ?? root).push(entry);
      open.push(entry);
    }
  });
  const list = (entries: ContentsEntry[]): string =>
    `<ol>${entries
      .map(
        (entry) =>
          `<li><a href="${entry.href}">${escapeXml(entry.text)}</a>${entry.children.length > 0 ? list(entry.children) : ""}</li>`,
      )
      .join("\n")}</ol>`;
  const body = `<nav epub:type="toc" role="doc-toc" id="toc" aria-labelledby="toc-heading"><h1 id="toc-heading">Contents</h1>
${list(root)}</nav>
<nav epub:type="landmarks" aria-label="Landmarks" hidden=""><ol><li><a epub:type="toc" href="#toc">Contents</a></li><li><a epub:type="bodymatter" href="${chapterName(0)}">Text</a></li></ol></nav>`;
  return page(book, "Contents", body);
}
