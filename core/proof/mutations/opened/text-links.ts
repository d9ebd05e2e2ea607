import type { OpenContainer, Stretch } from "./open-container.ts";

/** The links of Markdown: their words, where they lead, and their title with its quotes. */
export function markdownLinks(file: OpenContainer, leading: RegExp = /./): Stretch[] {
  const path = file.pathOf(/^[^/]*\.md$/)!;
  const link = /(?<![!\\])\[((?:\\.|[^[\]\\])+)\]\(([^()\s]+)( "(?:\\.|[^"\\])*")?\)/;
  return file.find([path], link).filter(({ match }) => leading.test(match[2]!));
}

/** The hyperlinks of a text document: their first tag, and what is between their tags. */
export function docxLinks(file: OpenContainer): Stretch[] {
  const path = file.pathOf(/word\/document\.xml$/)!;
  return file.find([path], /(<w:hyperlink\b[^>]*>)(.*?)<\/w:hyperlink>/s);
}

/** Whether two addresses are the ways back from one note to its first and another mark. */
export function isPair(one: string, other: string | undefined): boolean {
  return other !== undefined && one !== other && one.replace(/\d+$/, "") === other.replace(/\d+$/, "");
}

/** The anchors of Markdown to which links lead. */
export function anchorsInUse(file: OpenContainer): Stretch[] {
  const used = new Set(markdownLinks(file, /^#/).map(({ match }) => match[2]!.slice(1)));
  const anchors = file.find([file.pathOf(/\.md$/)!], /<a id="([^"]+)"><\/a>/);
  return anchors.filter(({ match }) => used.has(match[1]!));
}

/** The beginnings of bookmarks of a text document to which links lead. */
export function bookmarksInUse(file: OpenContainer): Stretch[] {
  const path = file.pathOf(/word\/document\.xml$/)!;
  const used = new Set(file.find([path], /w:anchor="([^"]*)"/).map(({ match }) => match[1]));
  const marks = file.find([path], /<w:bookmarkStart [^>]*w:name="([^"]*)"[^>]*\/>/);
  return marks.filter(({ match }) => used.has(match[1]));
}

/** The links of an OpenDocument text: their first tag, and what is between their tags. */
export function odtLinks(file: OpenContainer, beginning: RegExp = /./): Stretch[] {
  const path = file.pathOf(/content\.xml$/)!;
  return file
    .find([path], /(<text:a\b[^>]*>)(.*?)<\/text:a>/s)
    .filter(({ match }) => beginning.test(match[1]!));
}

/** The bookmarks of an OpenDocument text to which links lead. */
export function odtPlacesInUse(file: OpenContainer): Stretch[] {
  const path = file.pathOf(/content\.xml$/)!;
  const used = new Set(file.find([path], /xlink:href="#([^"]*)"/).map(({ match }) => match[1]));
  return file.find([path], /<text:bookmark text:name="([^"]*)"\/>/).filter(({ match }) => used.has(match[1]));
}

/** The notes of an OpenDocument text that hold no other: their names, and their bodies. */
export function odtNotes(file: OpenContainer): Stretch[] {
  const path = file.pathOf(/content\.xml$/)!;
  const note =
    /<text:note text:id="([^"]*)"(?:(?!<text:note ).)*?<text:note-body>((?:(?!<text:note ).)*?)<\/text:note-body><\/text:note>/s;
  return file.find([path], note);
}

/** The paragraphs of an OpenDocument text that are plain words: their first tag, the words, and their last tag. */
export function odtLines(file: OpenContainer): Stretch[] {
  return file.find([file.pathOf(/content\.xml$/)!], /(<text:p [^>]*>)([^<]+)(<\/text:p>)/);
}
