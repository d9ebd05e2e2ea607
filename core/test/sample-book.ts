import { importMarkdown, type ImportedManuscript } from "../import/markdown.ts";
import { usualConventions } from "../manuscript/conventions.ts";
import { usualLooks } from "../manuscript/looks.ts";
import { usualLayout } from "../manuscript/page-layout.ts";
import type { Book } from "../manuscript/book.ts";

/** Brings Markdown in with no pictures at hand. */
export function bringIn(markdown: string, baseAddress: string | null = null): ImportedManuscript {
  return importMarkdown(markdown, { fallbackTitle: "Untitled", baseAddress, pictureFor: () => null });
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
    looks: usualLooks,
    conventions: usualConventions,
    layout: usualLayout,
    ...more,
  };
}
