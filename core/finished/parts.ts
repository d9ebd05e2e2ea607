import type { Node } from "prosemirror-model";
import type { PageOfFile } from "../checks/page-of-file.ts";
import type { LinkedPart } from "../publication/linked-part.ts";
import { chapterAsDocument } from "./epub/chapter-as-document.ts";
import { readEpubPage, type EpubPage } from "./epub/epub-page.ts";
import { FinishedChapter } from "./epub/finished-chapter.ts";
import { FinishedPage } from "./pdf/finished-page.ts";
import { deadOf } from "./dead-links.ts";
import { pageForRules } from "./pdf/page-for-rules.ts";
import { pageAsDocument } from "./pdf/page-as-document.ts";
import { readPdfPage, type PdfPage } from "./pdf/pdf-page.ts";

/** A sort of parts of finished files; `Page` is what is kept of one. */
interface SortOfPart<Page> {
  read: (value: unknown) => Page;
  part: (page: Page) => LinkedPart<unknown>;
  asDocument: (page: Page) => Node;
  forRules: (page: Page) => PageOfFile;
}

const pdf: SortOfPart<PdfPage> = {
  read: readPdfPage,
  part: (page) => new FinishedPage(page),
  asDocument: pageAsDocument,
  forRules: pageForRules,
};
const epub: SortOfPart<EpubPage> = {
  read: readEpubPage,
  part: (page) => new FinishedChapter(page),
  asDocument: chapterAsDocument,
  // Where its links lie is up to each reader’s device.
  forRules: ({ isBlank, untouched }) => ({ isBlank, links: [], dead: deadOf(untouched) }),
};

/** By what parts say that they are. */
const sorts = new Map<unknown, SortOfPart<unknown>>([
  ["pdf-page", pdf as SortOfPart<unknown>],
  ["epub-page", epub as SortOfPart<unknown>],
]);

function sortOf(value: unknown): SortOfPart<unknown> | undefined {
  return sorts.get(((value ?? {}) as { type?: unknown }).type);
}

/**
 * Reads a part of a finished file as it is kept, and judges it.
 * @returns null where it is no part of one
 * @throws FinishedError where it is not as it has to be
 */
export function readFinishedPart(value: unknown): LinkedPart<unknown> | null {
  const sort = sortOf(value);
  return sort ? sort.part(sort.read(value)) : null;
}

/** A part of a finished file, by its content, as a document of the one schema, by which rules look at it; null where it is none. */
export function finishedAsDocument(content: unknown): Node | null {
  return sortOf(content)?.asDocument(content) ?? null;
}

/** What rules are told of a part of a finished file besides its document, by its content; null where it is none. */
export function finishedForRules(content: unknown): PageOfFile | null {
  return sortOf(content)?.forRules(content) ?? null;
}
