import type { Node } from "prosemirror-model";
import { answerKey } from "../destination/destination.ts";
import type { PageOfFile } from "./page-of-file.ts";
import type { Book, CompanionFile } from "../manuscript/book.ts";
import type { BookIndex } from "../manuscript/book-index.ts";
import type { LinkChange } from "../manuscript/edit-links.ts";
import type { LinkUse } from "../manuscript/links.ts";
import type { PublicationLink } from "../publication/linked-part.ts";

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
  /** Whether that is right without a look at it: only such mends are made all at once. */
  isSure: boolean;
  /** Of what it is said once for the whole book; left out where it is about its subject alone. */
  onceFor?: string;
}

/** What is known of a destination from asking it. */
export interface KnownAnswer {
  state: "sound" | "moved" | "guarded" | "broken" | "unsure";
  /** Why, as a code. */
  code: string;
  /** Why, in words for the author. */
  reason: string;
  /** Where it has moved to for good. */
  movedTo: string | null;
  /** What the page calls itself. */
  title: string | null;
  /** The https address that answers as well. */
  secure: string | null;
  /** The address at which asking ended, where that is another. */
  endsAt: string | null;
  /** The media type of what came, without its parameters, in lower case. */
  type: string | null;
  /** When the certificate of its server ends, ISO 8601, where that is soon. */
  certificateEnds: string | null;
  /** What is another of the page than when it was linked; null where it is what it was. */
  change: { what: "page" | "part" | "hands"; then: PageCalled; now: PageCalled } | null;
  /** When somebody looked at it and found it well, though asking cannot judge it; ISO 8601. */
  lookedAt: string | null;
  /** The companion file that is a copy of the page. */
  keptCopy: string | null;
}

/** What a page is called. */
export interface PageCalled {
  title: string | null;
  headings: readonly string[];
}

/** Who may open a shared file. */
export type ShareAudience = { kind: "owner" } | { kind: "group"; name: string } | { kind: "anyone" };

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
  /** To what destinations, as they are written, equal link texts of the whole book lead. */
  wordsLead: ReadonlyMap<string, ReadonlySet<string>>;
  /** How many links of the book lead to web addresses of each scheme. */
  schemes: { http: number; https: number };
  /** Every landing place of the book. */
  index: BookIndex;
  /** The index of the chapter that is checked. */
  chapter: number;
  /** The book's language, a BCP 47 tag. */
  language: string;
  /** The places to which links of the book lead. */
  ledTo: ReadonlySet<string>;
  /**
   * Whether readers are told of a link only what its own description says, as in a finished file that is tagged; books
   * get descriptions where they have none.
   */
  describesAll?: boolean;
  /** Whether its anchors are those of a file that stays as it is, and nobody’s to take out. */
  keepsAnchors?: boolean;
  /** Of a finished file its pages, as chapters are counted; left out where none has any. */
  pages?: readonly (PageOfFile | undefined)[];
  /** The ids of the tops of companion pages that have no words yet. */
  unwritten: ReadonlySet<string>;
}

/** A link as the rules see it, of whatever publication it is. */
export type CheckedLink = Pick<
  PublicationLink,
  "id" | "text" | "parts" | "destination" | "description" | "on" | "asText" | "look"
>;

/** Something that a rule found. */
export interface Found {
  /** The id of what it is about. */
  subject: string;
  message: string;
}

interface RuleAbout {
  id: string;
  /** What it finds, in a few plain words. */
  title: string;
  severity: Severity;
  /** Where the rule comes from. */
  source: string;
  /** What puts a link right that the rule has found, where one press can; null where it cannot. */
  mend?: (link: CheckedLink, context: CheckContext) => LinkChange | null;
  /** Whether what it would change is right without a look at it; where it is left out, it always is. */
  isSure?: (link: CheckedLink, context: CheckContext) => boolean;
  /** Of what a finding is said once for the whole book, however many links it is about; null for this link alone. */
  onceFor?: (link: CheckedLink, context: CheckContext) => string | null;
}

/** What a link is by itself, wherever it stands. */
export type LinkAlone = Pick<CheckedLink, "text" | "destination" | "description" | "on" | "asText" | "look">;

/** A rule that looks at a link by itself: what it finds holds as long as the link stays as it is. */
export interface LinkRule extends RuleAbout {
  /** What is wrong and what to do; null where nothing is. */
  find: (link: LinkAlone) => string | null;
}

/** A rule that looks at a link by what is known of the book. */
export interface BookRule extends RuleAbout {
  /**
   * What is wrong and what to do; null where nothing is.
   * @param answer what asking the link's destination showed last, if it was asked
   */
  findInBook: (link: CheckedLink, context: CheckContext, answer: KnownAnswer | undefined) => string | null;
}

/** A rule that looks at a whole chapter of a manuscript, whose links are given so that they are read once. */
export interface ChapterRule extends RuleAbout {
  findInChapter: (doc: Node, links: readonly LinkUse[], context: CheckContext) => Found[];
}

export type Rule = LinkRule | BookRule | ChapterRule;

/** What asking a link's destination showed last, if it was asked. */
export function answerOf({ destination }: CheckedLink, { answers }: CheckContext): KnownAnswer | undefined {
  const key = answers.size === 0 ? null : answerKey(destination);
  return key === null ? undefined : answers.get(key);
}

/** Who may open the shared file to which a link leads, whichever way its address was given. */
export function shareOf({ destination }: CheckedLink, { shares }: CheckContext): ShareAudience | undefined {
  if (destination.kind === "web") return shares.get(destination.address);
  return destination.kind === "file" && "share" in destination ? shares.get(destination.share) : undefined;
}

/** The companion file to which a link leads. */
export function companionOf(
  { destination }: CheckedLink,
  { files }: CheckContext,
): CompanionFile | undefined {
  return destination.kind === "file" && "file" in destination ? files.get(destination.file) : undefined;
}

/** The companion file that is a copy of the page to which a link leads; null where none was kept, or it is gone. */
export function keptCopyOf(link: CheckedLink, context: CheckContext): string | null {
  const file = answerOf(link, context)?.keptCopy ?? null;
  return file !== null && context.files.has(file) ? file : null;
}
