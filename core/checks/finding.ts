import type { Node } from "prosemirror-model";
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
}

/** What the rules need to know of the rest of the book. */
export interface CheckContext {
  /** The companion files' names by their ids. */
  fileNames: ReadonlyMap<string, string>;
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
  mend?: (use: LinkUse) => LinkChange | null;
}
