import { writeDestination } from "../../destination/destination.ts";
import { importManuscript } from "../../import/import-manuscript.ts";
import type { Book } from "../../manuscript/book.ts";
import { usualFonts } from "../../manuscript/book-fonts.ts";
import { defaultConventions } from "../../manuscript/conventions.ts";
import { defaultLooks } from "../../manuscript/looks.ts";
import { defaultLayout } from "../../manuscript/page-layout.ts";
import { checkBook, type BookFinding } from "../check-book.ts";
import { writeChange } from "./case.ts";

/** What a rule says of a document, in words by which it is known again. */
export interface FindingOfDocument {
  rule: string;
  severity: BookFinding["severity"];
  /** The words of its link; of what is no link the words that stand there. */
  words: string;
  /** Where its link leads; empty for what is no link. */
  to: string;
  /** What one press makes of it; null where it cannot. */
  mended: string | null;
}

const longest = 120;

/** What the rules find in a document that somebody else wrote, of which nothing was asked. */
export async function findingsOfDocument(name: string, bytes: Uint8Array): Promise<FindingOfDocument[]> {
  const arrived = await importManuscript(
    { name, bytes },
    { fallbackTitle: "Untitled", baseAddress: null, pictureFor: () => null, drawn: async () => null },
  );
  const book: Book = {
    id: "00000000-0000-4000-8000-000000000000",
    title: arrived.title,
    author: arrived.author ?? "",
    language: arrived.language ?? "en",
    modified: "2026-01-01T00:00:00.000Z",
    chapters: arrived.chapters.map((doc, i) => ({ id: `c${i}`, role: arrived.roles[i]!, doc })),
    pictures: [],
    files: new Map(
      arrived.companions.map(({ id, name: file, bytes: content }) => [
        id,
        { name: file, mediaType: "application/octet-stream", size: content.length },
      ]),
    ),
    fileBytes: new Map(),
    leavesFiles: false,
    looks: defaultLooks,
    conventions: arrived.conventions ?? defaultConventions,
    layout: arrived.layout ?? defaultLayout,
    fonts: usualFonts,
    fontFaces: [],
  };
  return checkBook(book).map(({ rule, severity, link, before, mend }) => {
    // Ids of places are made anew each time.
    const to = !link
      ? ""
      : link.destination.kind === "place"
        ? "(a place)"
        : writeDestination(link.destination);
    return {
      rule,
      severity,
      words: shortened(link ? link.text : before),
      to: shortened(to),
      mended: link && mend ? shortened(writeChange(mend, link.text)) : null,
    };
  });
}

function shortened(text: string): string {
  const plain = text.replace(/\s+/g, " ");
  return plain.length > longest ? `${plain.slice(0, longest)}…` : plain;
}
