import { topOfBook } from "../../../manuscript/book-index.ts";
import type { FontFace } from "../../../manuscript/book-fonts.ts";
import { indexOf, usedPictures, type Book } from "../../../manuscript/book.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import { languageDirection } from "../../../manuscript/direction.ts";
import { pictureSize } from "../../../manuscript/picture-size.ts";
import { hasOwnContents, nested, signpostsOf, type SignpostBranch } from "../../../manuscript/signposts.ts";
import { dataAddress } from "../../data-address.ts";
import { bookStyle, hoverRules } from "../../book-style.ts";
import { fontFaceRule, fontRules, ownFonts, type OwnFonts } from "../../own-fonts.ts";
import { travellingFiles } from "../../travelling-files.ts";
import { chapterXhtml, notesXhtml } from "../../xhtml/chapter-xhtml.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";
import type { PageContext } from "../../xhtml/page-context.ts";

const pageRules = `body { max-width: 38em; margin: 0 auto; padding: 1em; }
nav ul { list-style: none; padding: 0; }
nav ul ul { padding-inline-start: 1.5em; }
.ways { display: flex; flex-wrap: wrap; gap: 0 2em; border-top: 1px solid; margin-top: 2em; padding-top: 0.5em; }
@media (prefers-color-scheme: dark) {
  body { background: #1d1b19; color: #ece7db; }
  a[class], a { color: #92bcf2; }
  a.as-text { color: inherit; }
  a[class]:hover { background: #233247; }
}
`;

/** The style sheet of a book's web pages, with the author's fonts where their bytes are. */
export function webStyle(book: Book, own: OwnFonts, sourceOf: (face: FontFace, i: number) => string): string {
  const faces = own.faces.map((face, i) => fontFaceRule(face, sourceOf(face, i)));
  return faces.join("") + bookStyle(book) + fontRules(own.fonts) + hoverRules(book.looks) + pageRules;
}

/**
 * Writes a book as one web page (HTML) that needs nothing beside it but its companion files: pictures and style
 * are inside, and no script is. The same book gives the same bytes.
 * @returns the page in UTF-8
 */
export function writeWebPage(book: Book): Uint8Array {
  const index = indexOf(book);
  const used = usedPictures(book);
  const shown = new Map(
    book.pictures
      .filter(({ id }) => used.has(id))
      .map((picture) => [
        picture.id,
        {
          href: dataAddress(picture.mediaType, picture.bytes),
          ...pictureSize(picture),
        },
      ]),
  );
  const usedIds = new Set<string>();
  const files = travellingFiles(book);
  const contextOf = (chapter: number): PageContext => ({
    index,
    chapter,
    page: "",
    pageOf: () => "",
    medium: "web",
    picture: (id) => shown.get(id) ?? null,
    files,
    usedIds,
    pageBreaks: [],
    holds: new Set(),
  });
  const chapters = book.chapters.map(({ doc }, i) => chapterXhtml(doc, contextOf(i)));
  const notes =
    index.conventions.notesAt === "book"
      ? book.chapters.flatMap(({ doc }, i) => {
          const body = notesXhtml(doc, contextOf(i));
          return body === "" ? [] : [`<h3 data-made="">${escapeXml(chapterTitle(doc))}</h3>\n${body}`];
        })
      : [];
  const notesPart =
    notes.length === 0
      ? ""
      : `<section role="doc-endnotes" aria-labelledby="notes"><h2 id="notes" data-made="">${escapeXml(index.words.notes)}</h2>\n${notes.join("\n")}</section>\n`;
  const contents = hasOwnContents(book) ? "" : contentsOf(index, 1, (id) => `#${id}`);
  const inside = (face: FontFace): string => dataAddress(face.mediaType, face.bytes);
  const style = webStyle(book, ownFonts(book, "web"), inside);
  return htmlPage(
    book,
    book.title,
    `<style>\n${style}</style>`,
    `${titleOf(book)}
${contents}<main>
${chapters.join("\n")}
${notesPart}</main>`,
  );
}

/** An HTML page in UTF-8. */
export function htmlPage(book: Book, title: string, style: string, body: string): Uint8Array {
  return new TextEncoder().encode(`<!DOCTYPE html>
<html lang="${escapeXml(book.language)}" dir="${languageDirection(book.language)}">
<head>
<meta charset="utf-8"/>
<meta name="viewport" content="width=device-width, initial-scale=1"/>
<title>${escapeXml(title)}</title>
<meta name="author" content="${escapeXml(book.author)}"/>
<meta name="vennet-counts" content="${escapeXml(JSON.stringify(book.conventions))}"/>
${style}
</head>
<body>
${body}
</body>
</html>
`);
}

/** The head of a book's first page, which is a landing place. */
export function titleOf(book: Book): string {
  return `<header data-made=""><h1 id="${topOfBook}">${escapeXml(book.title)}</h1><p>${escapeXml(book.author)}</p></header>`;
}

/** A contents list of so many levels. */
export function contentsOf(
  index: ReturnType<typeof indexOf>,
  depth: number,
  hrefOf: (id: string) => string,
): string {
  const list = {
    id: "toc",
    of: "contents" as const,
    scope: "book" as const,
    section: null,
    depth,
    anchors: [],
    heading: "",
    returnWords: null,
  };
  const branches = (entries: SignpostBranch[]): string =>
    `<ul>${entries
      .map(
        ({ id, words, inner }) =>
          `<li><a href="${hrefOf(id)}">${escapeXml(words)}</a>${inner.length > 0 ? branches(inner) : ""}</li>`,
      )
      .join("\n")}</ul>`;
  const name = escapeXml(index.words.contents);
  return `<nav aria-label="${name}" data-made=""><h2>${name}</h2>\n${branches(nested(signpostsOf(list, index, 0)))}</nav>\n`;
}
