import { hastToManuscript, type ManuscriptOfTree } from "../import/hast-to-manuscript/hast-to-manuscript.ts";
import { readMarkdownText } from "../import/markdown/markdown.ts";
import { usualFonts } from "../manuscript/book-fonts.ts";
import { defaultConventions } from "../manuscript/conventions.ts";
import { defaultLooks } from "../manuscript/looks.ts";
import { defaultLayout } from "../manuscript/page-layout.ts";
import type { Book } from "../manuscript/book.ts";

/** Brings Markdown in with no pictures at hand. */
export function bringIn(
  markdown: string,
  baseAddress: string | null = null,
  pictureFor: (source: string) => string | null = () => null,
): ManuscriptOfTree {
  const { tree, whereOf } = readMarkdownText(markdown);
  const options = {
    fallbackTitle: "Untitled",
    baseAddress,
    pictureFor,
    companionFor: () => null,
    pictureSize: () => null,
    whereOf,
  };
  return hastToManuscript(tree, options);
}

/** A book of what a piece of Markdown holds. */
export function bookOf(markdown: string, more: Partial<Book> = {}): Book {
  return {
    id: "7d4c1f0e-5f39-4c55-9a53-0a2f6f1b8f11",
    title: "Causeways",
    author: "Orla Tindrum",
    language: "en",
    modified: "2026-03-01T08:00:00.000Z",
    chapters: bringIn(markdown).chapters.map((doc, i) => ({
      id: `chapter-${i}`,
      role: "chapter" as const,
      doc,
    })),
    pictures: [],
    files: new Map(),
    fileBytes: new Map(),
    leavesFiles: false,
    looks: defaultLooks,
    conventions: defaultConventions,
    layout: defaultLayout,
    fonts: usualFonts,
    fontFaces: [],
    ...more,
  };
}
