import { topOfBook } from "../manuscript/book-index.ts";
import { indexOf, usedPictures, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { hasOwnContents, signpostsOf } from "../manuscript/signposts.ts";
import { bookStyle, hoverRules } from "./book-style.ts";
import { pictureSize } from "../manuscript/picture-size.ts";
import { travellingFiles } from "./travelling-files.ts";
import { chapterXhtml, escapeXml, notesXhtml, type XhtmlContext } from "./xhtml.ts";

const pageRules = `body { max-width: 38em; margin: 0 auto; padding: 1em; }
nav ul { list-style: none; padding-left: 0; }
@media (prefers-color-scheme: dark) {
  body { background: #1d1b19; color: #ece7db; }
  a[class], a { color: #92bcf2; }
  a.as-text { color: inherit; }
  a[class]:hover { background: #233247; }
}
`;

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
          href: `data:${picture.mediaType};base64,${base64(picture.bytes)}`,
          ...pictureSize(picture),
        },
      ]),
  );
  const usedIds = new Set<string>();
  const files = travellingFiles(book);
  const contextOf = (chapter: number): XhtmlContext => ({
    index,
    chapter,
    page: "",
    pageOf: () => "",
    medium: "web",
    picture: (id) => shown.get(id) ?? null,
    files,
    usedIds,
    hasAreas: false,
  });
  const chapters = book.chapters.map(({ doc }, i) => chapterXhtml(doc, contextOf(i)));
  const notes =
    index.conventions.notesAt === "book"
      ? book.chapters.flatMap(({ doc }, i) => {
          const body = notesXhtml(doc, contextOf(i));
          return body === "" ? [] : [`<h3>${escapeXml(chapterTitle(doc))}</h3>\n${body}`];
        })
      : [];
  const notesPart =
    notes.length === 0
      ? ""
      : `<section role="doc-endnotes" aria-labelledby="notes"><h2 id="notes">${escapeXml(index.words.notes)}</h2>\n${notes.join("\n")}</section>\n`;
  const lang = escapeXml(book.language);
  return new TextEncoder().encode(`<!DOCTYPE html>
<html lang="${lang}">
<head>
<meta charset="utf-8"/>
<meta name="viewport" content="width=device-width, initial-scale=1"/>
<title>${escapeXml(book.title)}</title>
<style>
${bookStyle(book)}${hoverRules(book.looks)}${pageRules}</style>
</head>
<body>
<header><h1 id="${topOfBook}">${escapeXml(book.title)}</h1><p>${escapeXml(book.author)}</p></header>
${contents(book, index)}<main>
${chapters.join("\n")}
${notesPart}</main>
</body>
</html>
`);
}

/** The contents list, unless the text has one of its own. */
function contents(book: Book, index: ReturnType<typeof indexOf>): string {
  if (hasOwnContents(book)) return "";
  const list = {
    id: "toc",
    of: "contents" as const,
    scope: "book" as const,
    section: null,
    depth: 1,
    anchors: [],
    heading: "",
    returnWords: null,
  };
  const items = signpostsOf(list, index, 0).map(
    ({ id, words }) => `<li><a href="#${id}">${escapeXml(words)}</a></li>`,
  );
  const name = escapeXml(index.words.contents);
  return `<nav aria-label="${name}"><h2>${name}</h2>\n<ul>${items.join("\n")}</ul></nav>\n`;
}

function base64(bytes: Uint8Array): string {
  let text = "";
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text);
}
