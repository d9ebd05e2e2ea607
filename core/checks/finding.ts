import type { Node } from "prosemirror-model";
import { writeDestination } from "../destination/destination.ts";
import type { Book, CompanionFile } from "../manuscript/book.ts";
import type { BookIndex } from "../manuscript/book-index.ts";
import type { LinkChange } from "../manuscript/edit-links.ts";
import type { LinkUse } from "../manuscript/links.ts";

export type Severity = "stop" | "fix" | "consider";

/** One problem that a check found, at one link, note, caption or signpost list of a chapter. */
export interface Finding {
  rule: string;
  severity: Severity;
  /** The id of what it is about. */
  subject: string;
  /** What is wrong and what to do, in one or two sentences for the author. */
  message: string;
  /** What one press changes to put it right; null where none can. */
  mend: LinkChange | null;
}

/** What is known of a destination from asking it. */
export interface KnownAnswer {
  state: "sound" | "moved" | "guarded" | "broken" | "unsure";
  /** Why, in words for the author. */
  reason: string;
  /** Where it has moved to for good. */
  movedTo: string | null;
  /** What the page calls itself. */
  title: string | null;
  /** The https address that answers as well. */
  secure: string | null;
}

/** Who may open a shared file. */
export type ShareAudience = { is: "owner" } | { is: "group"; name: string } | { is: "anyone" };

/** What the rules need to know of the rest of the book. */
export interface CheckContext {
  /** The companion files by their ids. */
  files: Book["files"];
  /** What asking each destination showed last, by the destination as it is written. */
  answers: ReadonlyMap<string, KnownAnswer>;
  /** Who may open each shared file, by its share address, as far as it is known. */
  shares: ReadonlyMap<string, ShareAudience>;
  /** Who reads the book: `anyone`, or the group of this name. */
  audience: string;
  /** Every picture's width and height in pixels, by the ids of their files, as far as they are known. */
  pictureSizes: ReadonlyMap<string, { width: number; height: number }>;
  /** The width of the text on the pages of the PDF, in CSS px. */
  textWidth: number;
  /** The destinations to which equal link texts of the whole book lead, as far as it is known. */
  wordsLead: ReadonlyMap<string, ReadonlySet<string>>;
  /** Every landing place of the book. */
  index: BookIndex;
  /** The index of the chapter that is checked. */
  chapter: number;
  /** The book's language, a BCP 47 tag. */
  language: string;
  /** The places to which links of the book lead, as far as it is known. */
  ledTo: ReadonlySet<string>;
  /** The ids of the tops of companion pages that have no words yet. */
  unwritten: ReadonlySet<string>;
}

/** One rule. `find` looks at a whole chapter, whose links are given so that they are read once. */
export interface Rule {
  id: string;
  /** What it finds, in a few plain words. */
  title: string;
  severity: Severity;
  /** Where the rule comes from. */
  source: string;
  find: (
    links: readonly LinkUse[],
    context: CheckContext,
    doc: Node,
  ) => { subject: string; message: string }[];
  /** What puts a link right that the rule has found, where one press can; null where it cannot. */
  mend?: (use: LinkUse, context: CheckContext) => LinkChange | null;
}

/** What asking a link's destination showed last, if it was asked. */
export function answerOf({ destination }: LinkUse, { answers }: CheckContext): KnownAnswer | undefined {
  return destination.kind === "place" ? undefined : answers.get(writeDestination(destination));
}

/** Who may open the shared file to which a link leads, whichever way its address was given. */
export function shareOf({ destination }: LinkUse, { shares }: CheckContext): ShareAudience | undefined {
  if (destination.kind === "web") return shares.get(destination.address);
  return destination.kind === "file" && "share" in destination ? shares.get(destination.share) : undefined;
}

/** The companion file to which a link leads. */
export function companionOf({ destination }: LinkUse, { files }: CheckContext): CompanionFile | undefined {
  return destination.kind === "file" && "file" in destination ? files.get(destination.file) : undefined;
}
