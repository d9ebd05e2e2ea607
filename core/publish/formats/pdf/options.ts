import { choice, companions, flag, type Chosen } from "../option.ts";

/** What an author chooses for a PDF. */
export const pdfOptions = {
  accessible: flag(true, "For a PDF: claim PDF/UA-1, and refuse what it does not allow."),
  addresses: choice(
    ["none", "notes", "list"],
    "For a PDF that is printed: web addresses written out in notes, or in a list at the end.",
  ),
  companions,
  layout: { kind: "layout", default: null, about: "For a PDF: null for the book's own." },
} as const;

export type PdfOptions = Chosen<typeof pdfOptions>;

/** How a book that is to be printed shows its web addresses: not at all, as notes, or in a list at its end. */
export type PrintedAddresses = PdfOptions["addresses"];
