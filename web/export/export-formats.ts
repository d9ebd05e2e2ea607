import type { ExportFormat, ExportOptions } from "@vennet/core/publish/export-options";
import { layoutWords } from "./layout-words";

/** How the formats are called, and what each is for. */
export const formats: Record<ExportFormat, { name: string; action: string; about: string }> = {
  pdf: {
    name: "PDF",
    action: "Export PDF",
    about:
      "Pages with cover page, contents list, outline and page numbers, tagged for screen readers; for screens, or for print with addresses written out.",
  },
  epub: {
    name: "E-book",
    action: "Export EPUB",
    about:
      "EPUB 3.3 with one file a chapter, cover, navigation, linked notes, the companion files inside, and what it says about its accessibility.",
  },
  web: {
    name: "Web page",
    action: "Export web page",
    about: "Works from a disk, in the dark, and without script.",
  },
  markdown: {
    name: "Markdown",
    action: "Export Markdown",
    about: "For going on elsewhere: links with descriptions, anchors, tables and footnotes are kept.",
  },
  docx: {
    name: "Text document",
    action: "Export text document",
    about: "For a word processor (DOCX): links with descriptions, bookmarks, tables and footnotes are kept.",
  },
};

/** What was chosen for an export, in a few words; what is usual is not said. */
export function optionWords(options: ExportOptions): string {
  const { format, accessible, addresses, companions, pages, fonts, pageList, layout } = options;
  const words = [
    format === "pdf" && !accessible && "without the PDF/UA-1 claim",
    format === "pdf" && addresses === "notes" && "addresses in notes",
    format === "pdf" && addresses === "list" && "addresses listed at the end",
    format === "pdf" && layout && layoutWords(layout),
    format === "epub" && fonts && "letters inside",
    format === "epub" && !pageList && "without page numbers",
    format === "web" && (pages === "chapters" ? "a page for each chapter" : "one page"),
    format !== "epub" && companions === "left-out" && "without companion files",
  ];
  return words.filter(Boolean).join(", ");
}
