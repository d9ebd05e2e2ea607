import { strToU8, zipSync, type Zippable } from "fflate";
import { fontSuffix, type FontFace } from "../../../manuscript/book-fonts.ts";
import { indexOf, pictureSuffix, picturesIn, usedPictures, type Book } from "../../../manuscript/book.ts";
import { topOfBook, type BookIndex } from "../../../manuscript/book-index.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import { hasOwnContents, nested, signpostsOf, type SignpostBranch } from "../../../manuscript/signposts.ts";
import { bookStyle } from "../../book-style.ts";
import { fontFaceRule, fontRules, ownFonts } from "../../own-fonts.ts";
import { conformsTo, hasEarnedConformance } from "./conformance.ts";
import { coverSvg } from "./cover.ts";
import { languageDirection } from "../../../manuscript/direction.ts";
import { pictureSize } from "../../../manuscript/picture-size.ts";
import { bytesOf, entryDate } from "../../export-folder.ts";
import { travellingFiles, type TravellingFile } from "../../travelling-files.ts";
import { findPageBreaks, type PageStart } from "./page-breaks.ts";
import { chapterXhtml, notesXhtml } from "../../xhtml/chapter-xhtml.ts";
import { pageBreak, pageId } from "../../xhtml/page-marks.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";
import type { PageContext } from "../../xhtml/page-context.ts";

const notesPage = "notes.xhtml";
const coverPage = "cover.xhtml";
const coverPicture = "cover.svg";

/** What an e-book may have besides its text. */
export interface EpubExtras {
  /** The usual faces of text, for where the author has none of their own. */
  fonts: readonly FontFace[];
  /** The pages of a PDF of the book, and that file's name. */
  pages: { starts: readonly PageStart[]; source: string } | null;
}

const nothingMore: EpubExtras = { fonts: [], pages: null };

/**
 * Writes a book as EPUB 3.3 (W3C): a cover, one XHTML file a chapter, a navigation document, and accessibility
 * metadata (EPUB Accessibility 1.1). The same book gives the same bytes.
 * @returns the bytes of the container, `mimetype` first and stored (OCF 3.3, 4.3).
 */
export function writeEpub(book: Book, { fonts: usual, pages: pdf }: EpubExtras = nothingMore): Uint8Array {
  const own = ownFonts(book, "epub");
  const isUsual = own.fonts.text === null && usual.length > 0;
  const fonts = isUsual ? [...usual, ...own.faces] : own.faces;
  const families = isUsual ? { ...own.fonts, text: usual[0]!.family } : own.fonts;
  const index = indexOf(book);
  const used = usedPictures(book);
  const pictures = book.pictures.filter((picture) => used.has(picture.id));
  const breaks = findPageBreaks(book, pdf?.starts ?? []);
  const chapterName = (i: number): string => `chapter-${String(i + 1).padStart(3, "0")}.xhtml`;
  const shown = new Map(
    pictures.map((picture) => [
      picture.id,
      { href: `picture-${picture.id}.${pictureSuffix[picture.mediaType]}`, ...pictureSize(picture) },
    ]),
  );
  const travelling = travellingFiles(book);
  const text = (content: string): Zippable[string] => [strToU8(content), { mtime: entryDate, level: 6 }];
  const files: Zippable = {
    mimetype: [strToU8("application/epub+zip"), { mtime: entryDate, level: 0 }],
    "META-INF/container.xml": text(
      `<?xml version="1.0" encoding="UTF-8"?>
<container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/></rootfiles></container>
`,
    ),
  };
  const atEnd = index.conventions.notesAt === "book";
  const pageOf: PageContext["pageOf"] = ({ chapter, note }) =>
    note !== null && atEnd ? notesPage : chapter === -1 ? "title.xhtml" : chapterName(chapter);
  const contextOf = (chapter: number, page: string): PageContext => ({
    index,
    chapter,
    page,
    pageOf,
    medium: "epub",
    picture: (id) => shown.get(id) ?? null,
    files: travelling,
    pageBreaks: breaks.inChapters.get(chapter) ?? [],
    usedIds: new Set(),
    holds: new Set(),
  });
  /** What each page holds beside HTML. */
  const holding = new Map<string, ReadonlySet<string>>();
  const pages = new Map<string, string>();
  book.chapters.forEach(({ doc }, i) => {
    const context = contextOf(i, chapterName(i));
    pages.set(context.page, page(book, chapterTitle(doc), chapterXhtml(doc, context)));
    holding.set(context.page, context.holds);
  });
  if (atEnd) {
    const { notes } = index.words;
    const holds: PageContext["holds"] = new Set();
    holding.set(notesPage, holds);
    const sections = book.chapters.flatMap(({ doc }, i) => {
      const context = { ...contextOf(i, notesPage), holds };
      const body = notesXhtml(doc, context);
      return body === "" ? [] : [`<h2 data-made="">${escapeXml(chapterTitle(doc))}</h2>\n${body}`];
    });
    if (sections.length > 0) {
      const body = `<section epub:type="endnotes" role="doc-endnotes" aria-labelledby="notes"><h1 id="notes" data-made="">${escapeXml(notes)}</h1>\n${sections.join("\n")}</section>`;
      pages.set(notesPage, page(book, notes, body));
    }
  }
  const manifestPictures = pictures.map((p): [string, string] => [shown.get(p.id)!.href, p.mediaType]);
  const companions = [...travelling.values()];
  const pageList = [
    ...breaks.before.map((label) => ({ label, href: `#${pageId(label)}` })),
    ...[...breaks.inChapters].flatMap(([chapter, list]) =>
      list.map(({ label }) => ({ label, href: `${chapterName(chapter)}#${pageId(label)}` })),
    ),
  ];
  files["EPUB/package.opf"] = text(
    packageDocument(book, {
      pages: [...pages.keys()],
      pictures: manifestPictures,
      companions,
      holding,
      fonts: fonts.map((face, i) => [fontName(face, i), face.mediaType]),
      pageSource: pageList.length > 0 ? pdf!.source : null,
    }),
  );
  files["EPUB/nav.xhtml"] = text(navigationDocument(book, index, pageOf, pageList, breaks.before));
  files["EPUB/style.css"] = text(
    fonts.map((face, i) => fontFaceRule(face, fontName(face, i))).join("") +
      bookStyle(book) +
      fontRules(families),
  );
  files[`EPUB/${coverPicture}`] = text(coverSvg(book));
  files[`EPUB/${coverPage}`] = text(
    page(
      book,
      index.words.cover,
      `<section epub:type="cover" data-made=""><img class="cover" src="${coverPicture}" alt="${escapeXml(`${index.words.cover}: ${book.title}, ${book.author}`)}"/></section>`,
    ),
  );
  fonts.forEach((face, i) => {
    files[`EPUB/${fontName(face, i)}`] = [face.bytes, { mtime: entryDate, level: 6 }];
  });
  files["EPUB/title.xhtml"] = text(
    page(
      book,
      book.title,
      `<section class="title-page" epub:type="titlepage" data-made=""><h1 id="${topOfBook}">${escapeXml(book.title)}</h1><p>${escapeXml(book.author)}</p></section>`,
    ),
  );
  for (const [name, content] of pages) files[`EPUB/${name}`] = text(content);
  for (const picture of pictures) {
    files[`EPUB/${shown.get(picture.id)!.href}`] = [picture.bytes, { mtime: entryDate, level: 0 }];
  }
  companions.forEach((file, i) => {
    files[`EPUB/${file.path}`] = [bytesOf(book, file.id), { mtime: entryDate, level: 6 }];
    files[`EPUB/${fallbackName(i)}`] = text(fallbackPage(book, file, index.words.fileInside));
  });
  return zipSync(files);
}

/**
 * The page that an e-reader shows which does not open the file itself (EPUB 3.3, manifest fallbacks). Its heading leads to
 * the file: what is outside the order has to be reachable, and checkers pass over links through an e-book.
 */
function fallbackPage(book: Book, { name, path, mediaType, size }: TravellingFile, words: string): string {
  const kilobytes = Math.max(1, Math.round(size / 1000));
  return page(
    book,
    name,
    `<section data-made=""><h1><a href="${escapeXml(path)}">${escapeXml(name)}</a></h1><p>${escapeXml(words)}</p><p>${escapeXml(mediaType)}, ${kilobytes} KB</p></section>`,
  );
}

function fallbackName(i: number): string {
  return `file-${String(i + 1).padStart(3, "0")}.xhtml`;
}

function page(book: Book, title: string, body: string): string {
  const lang = escapeXml(book.language);
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="${lang}" xml:lang="${lang}" dir="${languageDirection(book.language)}">
<head><title>${escapeXml(title || book.title)}</title><link rel="stylesheet" type="text/css" href="style.css"/></head>
<body>
${body}
</body>
</html>
`;
}

function fontName({ mediaType }: FontFace, i: number): string {
  return `font-${i + 1}.${fontSuffix[mediaType]}`;
}

function propertiesOf(holds: ReadonlySet<string> = new Set()): string {
  return holds.size === 0 ? "" : ` properties="${[...holds].sort().join(" ")}"`;
}

function packageDocument(
  book: Book,
  {
    pages,
    pictures,
    companions,
    holding,
    fonts,
    pageSource,
  }: {
    pages: string[];
    pictures: [name: string, mediaType: string][];
    companions: TravellingFile[];
    holding: ReadonlyMap<string, ReadonlySet<string>>;
    fonts: [name: string, mediaType: string][];
    /** The file whose pages the page list tells; null where there is none. */
    pageSource: string | null;
  },
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
    ...(pageSource === null
      ? []
      : [meta("accessibilityFeature", "pageNavigation"), meta("accessibilityFeature", "pageBreakMarkers")]),
    meta("accessibilityHazard", "none"),
    meta(
      "accessibilitySummary",
      allDescribed
        ? "Reflowable text with headings, a table of contents and linked notes; every picture has a text alternative."
        : "Reflowable text with headings, a table of contents and linked notes; some pictures have no text alternative.",
    ),
    ...(hasEarnedConformance(book) ? [`    <meta property="dcterms:conformsTo">${conformsTo}</meta>`] : []),
  ].join("\n");
  // EPUB 3.3, D.3.10: from where the page numbers come.
  const source =
    pageSource === null
      ? ""
      : `    <dc:source id="pages">${escapeXml(pageSource)}</dc:source>\n    <meta refines="#pages" property="source-of">pagination</meta>\n`;
  const manifest = [
    `    <item id="cover-picture" href="${coverPicture}" media-type="image/svg+xml" properties="cover-image"/>`,
    `    <item id="cover" href="${coverPage}" media-type="application/xhtml+xml"/>`,
    ...fonts.map(([name, type], i) => `    <item id="font-${i + 1}" href="${name}" media-type="${type}"/>`),
    `    <item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/>`,
    `    <item id="style" href="style.css" media-type="text/css"/>`,
    `    <item id="title" href="title.xhtml" media-type="application/xhtml+xml"/>`,
    ...pages.map(
      (name) =>
        `    <item id="${name.replace(".xhtml", "")}" href="${name}" media-type="application/xhtml+xml"${propertiesOf(holding.get(name))}/>`,
    ),
    ...pictures.map(
      ([name, type], i) => `    <item id="picture-${i + 1}" href="${name}" media-type="${type}"/>`,
    ),
    // What links lead to has to be in the spine, and what e-readers need not open has to have a page in its place.
    ...companions.flatMap(({ path, mediaType }, i) => [
      `    <item id="file-${i + 1}" href="${path}" media-type="${escapeXml(mediaType)}" fallback="file-${i + 1}-page"/>`,
      `    <item id="file-${i + 1}-page" href="${fallbackName(i)}" media-type="application/xhtml+xml"/>`,
    ]),
  ].join("\n");
  const isOutside = (i: number): boolean => book.chapters[i]?.role === "companion";
  const spine = [
    `    <itemref idref="cover"/>`,
    `    <itemref idref="title"/>`,
    // The author's own contents list stands in the text.
    `    <itemref idref="nav"${hasOwnContents(book) ? ' linear="no"' : ""}/>`,
    ...pages.map(
      (name, i) =>
        `    <itemref idref="${name.replace(".xhtml", "")}"${isOutside(i) ? ' linear="no"' : ""}/>`,
    ),
    ...companions.map((_, i) => `    <itemref idref="file-${i + 1}" linear="no"/>`),
  ].join("\n");
  const direction = languageDirection(book.language);
  return `<?xml version="1.0" encoding="UTF-8"?>
<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id" xml:lang="${escapeXml(book.language)}" dir="${direction}">
  <metadata xmlns:dc="http://purl.org/dc/elements/1.1/">
    <dc:identifier id="id">urn:uuid:${escapeXml(book.id)}</dc:identifier>
    <dc:title>${escapeXml(book.title)}</dc:title>
    <dc:language>${escapeXml(book.language)}</dc:language>
    <dc:creator>${escapeXml(book.author)}</dc:creator>
    <meta name="vennet-counts" content="${escapeXml(JSON.stringify(book.conventions))}"/>
    <meta property="dcterms:modified">${book.modified.replace(/\.\d+Z$/, "Z")}</meta>
${source}${accessibility}
  </metadata>
  <manifest>
${manifest}
  </manifest>
  <spine page-progression-direction="${direction}">
${spine}
  </spine>
</package>
`;
}

function picturesHaveAlternatives(book: Book): boolean {
  return picturesIn(book).every(({ alt, decorative }) => decorative || alt.trim() !== "");
}

// Chapters and two levels of headings are enough to find one's way by.
const navigationDepth = 3;

function navigationDocument(
  book: Book,
  index: BookIndex,
  pageOf: PageContext["pageOf"],
  pageList: { label: string; href: string }[],
  pagesBefore: readonly string[],
): string {
  const entries = signpostsOf(
    {
      id: "toc",
      of: "contents",
      scope: "book",
      section: null,
      depth: navigationDepth,
      anchors: [],
      heading: "",
      returnWords: null,
    },
    index,
    0,
  );
  const companions = index.inOrder.filter(
    ({ kind, chapter, id, text }) =>
      kind === "title" &&
      index.companions.has(chapter) &&
      text !== "" &&
      index.places.get(id)?.chapter === chapter,
  );
  const all = [...entries, ...companions.map(({ id, words }) => ({ id, words, depth: 0 }))];
  const list = (branches: SignpostBranch[]): string =>
    `<ol>${branches
      .map(
        ({ id, words, inner }) =>
          `<li><a href="${pageOf(index.places.get(id)!)}#${id}">${escapeXml(words)}</a>${inner.length > 0 ? list(inner) : ""}</li>`,
      )
      .join("\n")}</ol>`;
  const { contents, cover, pages } = index.words;
  const numbers =
    pageList.length === 0
      ? ""
      : `<nav epub:type="page-list" role="doc-pagelist" aria-label="${escapeXml(pages)}" hidden=""><ol>${pageList
          .map(({ label, href }) => `<li><a href="${href}">${escapeXml(label)}</a></li>`)
          .join("\n")}</ol></nav>\n`;
  const begun = pagesBefore.map((label) => pageBreak(label, "epub")).join("");
  const body = `${begun}<nav epub:type="toc" role="doc-toc" id="toc" aria-labelledby="toc-heading"><h1 id="toc-heading">${escapeXml(contents)}</h1>
${list(nested(all))}</nav>
${numbers}<nav epub:type="landmarks" aria-label="Landmarks" hidden=""><ol><li><a epub:type="cover" href="${coverPage}">${escapeXml(cover)}</a></li><li><a epub:type="toc" href="#toc">${escapeXml(contents)}</a></li><li><a epub:type="bodymatter" href="${pageOf({ chapter: 0, note: null })}">Text</a></li></ol></nav>`;
  return page(book, contents, body);
}
