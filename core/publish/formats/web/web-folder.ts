import { zipSync, type Zippable } from "fflate";
import type { BookIndex } from "../../../manuscript/book-index.ts";
import { fontSuffix, type FontFace } from "../../../manuscript/book-fonts.ts";
import { indexOf, pictureSuffix, usedPictures, type Book } from "../../../manuscript/book.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import { pictureSize } from "../../../manuscript/picture-size.ts";
import { bytesOf, entryDate } from "../../export-folder.ts";
import { ownFonts } from "../../own-fonts.ts";
import { travellingFiles } from "../../travelling-files.ts";
import { contentsOf, htmlPage, titleOf, webStyle } from "./web-page.ts";
import { chapterXhtml, notesXhtml } from "../../xhtml/chapter-xhtml.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";
import type { PageContext } from "../../xhtml/page-context.ts";

const indexPage = "index.html";
const notesPage = "notes.html";
const style = '<link rel="stylesheet" href="style.css"/>';

// Chapters and one level of headings are enough to choose a page by.
const contentsDepth = 2;

/**
 * Writes a book as a folder of web pages in a zip: an index, a page for each chapter, the style sheet, pictures
 * and companion files. It works from a disk and needs no script. The same book gives the same bytes.
 */
export function writeWebFolder(book: Book): Uint8Array {
  const index = indexOf(book);
  const used = usedPictures(book);
  const pictures = book.pictures.filter(({ id }) => used.has(id));
  const shown = new Map(
    pictures.map((picture) => [
      picture.id,
      { href: `pictures/${picture.id}.${pictureSuffix[picture.mediaType]}`, ...pictureSize(picture) },
    ]),
  );
  const files = travellingFiles(book);
  const atEnd = index.conventions.notesAt === "book";
  const pageOf: PageContext["pageOf"] = ({ chapter, note }) =>
    note !== null && atEnd ? notesPage : chapter === -1 ? indexPage : chapterPage(chapter);
  const notesIds = new Set<string>();
  const contextOf = (chapter: number, page: string): PageContext => ({
    index,
    chapter,
    page,
    pageOf,
    medium: "web",
    picture: (id) => shown.get(id) ?? null,
    files,
    usedIds: page === notesPage ? notesIds : new Set(),
    pageBreaks: [],
    holds: new Set(),
  });
  const folder: Zippable = {};
  const put = (path: string, bytes: Uint8Array): void => {
    folder[path] = [bytes, { mtime: entryDate, level: 6 }];
  };
  const hrefOf = (id: string): string => `${pageOf(index.places.get(id)!)}#${id}`;
  put(
    indexPage,
    htmlPage(
      book,
      book.title,
      style,
      `${titleOf(book)}\n<main>${contentsOf(index, contentsDepth, hrefOf)}${companions(index)}</main>`,
    ),
  );
  book.chapters.forEach(({ doc }, i) => {
    const body = chapterXhtml(doc, contextOf(i, chapterPage(i)));
    const title = `${chapterTitle(doc)} – ${book.title}`;
    put(chapterPage(i), htmlPage(book, title, style, `<main>\n${body}\n</main>\n${ways(book, index, i)}`));
  });
  if (atEnd) {
    const notes = book.chapters.flatMap(({ doc }, i) => {
      const body = notesXhtml(doc, contextOf(i, notesPage));
      return body === "" ? [] : [`<h2 data-made="">${escapeXml(chapterTitle(doc))}</h2>\n${body}`];
    });
    const { notes: name } = index.words;
    const body = `<main role="doc-endnotes" aria-labelledby="notes"><h1 id="notes" data-made="">${escapeXml(name)}</h1>\n${notes.join("\n")}</main>\n${toIndex(index)}`;
    if (notes.length > 0) put(notesPage, htmlPage(book, `${name} – ${book.title}`, style, body));
  }
  const own = ownFonts(book, "web");
  const fontPath = ({ mediaType }: FontFace, i: number): string => `fonts/${i + 1}.${fontSuffix[mediaType]}`;
  put("style.css", new TextEncoder().encode(webStyle(book, own, fontPath)));
  own.faces.forEach((face, i) => put(fontPath(face, i), face.bytes));
  for (const { id, bytes } of pictures) put(shown.get(id)!.href, bytes);
  for (const { id, path } of files.values()) put(path, bytesOf(book, id));
  return zipSync(folder);
}

function chapterPage(i: number): string {
  return `chapter-${String(i + 1).padStart(3, "0")}.html`;
}

/** The pages outside the reading order, to which the contents list does not lead. */
function companions(index: BookIndex): string {
  const pages = index.inOrder.filter(
    ({ kind, chapter, text }) => kind === "title" && index.companions.has(chapter) && text !== "",
  );
  if (pages.length === 0) return "";
  const items = pages.map(
    ({ chapter, words }) => `<li><a href="${chapterPage(chapter)}">${escapeXml(words)}</a></li>`,
  );
  return `<nav aria-label="${escapeXml(index.words.companions)}" data-made=""><h2>${escapeXml(index.words.companions)}</h2>\n<ul>${items.join("\n")}</ul></nav>\n`;
}

/** The ways on from a chapter: to those beside it in the reading order, and to the index. */
function ways(book: Book, index: BookIndex, at: number): string {
  const beside = index.companions.has(at) ? [] : [at - 1, at + 1];
  const links = beside
    .filter((i) => (book.chapters[i]?.role ?? "companion") !== "companion")
    .map((i) => {
      const arrow = i < at ? "← " : "";
      const after = i > at ? " →" : "";
      return `<a href="${chapterPage(i)}">${arrow}${escapeXml(chapterTitle(book.chapters[i]!.doc))}${after}</a>`;
    });
  return toIndex(index, links);
}

function toIndex({ words }: BookIndex, more: string[] = []): string {
  const name = escapeXml(words.contents);
  return `<nav class="ways" aria-label="${name}" data-made=""><a href="${indexPage}">${name}</a>\n${more.join("\n")}</nav>`;
}
