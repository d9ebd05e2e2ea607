import type { Nodes, Root } from "hast";
import type { PageLayout } from "../manuscript/page-layout.ts";
import type { Conventions } from "../manuscript/conventions.ts";
import type { FileLink } from "./arrival/file-links.ts";
import type { LeftOut } from "./left-out.ts";

/** A file as it was brought. */
export interface BroughtFile {
  name: string;
  bytes: Uint8Array;
}

/** A file that lies inside a manuscript's own file, by the reference that the tree has to it. */
export interface EnclosedFile extends BroughtFile {
  reference: string;
}

/** What a manuscript says of itself; null for what it does not say. */
export interface AboutManuscript {
  title: string | null;
  author: string | null;
  /** As it says it; whether that is a language is judged later. */
  language: string | null;
  /** What it counts, where it is an export of ours that says so. */
  conventions?: Conventions | null;
  /** How its pages are laid out, where it has any. */
  layout?: PageLayout | null;
}

/** What reading a manuscript file gives, whatever its format. */
export interface ReadManuscript {
  /**
   * The text as a tree of HTML. A first-level heading begins a chapter; a note is a `note-body` element and its sign in
   * the text a `note-reference`, which belong together by their `dataNote`.
   */
  tree: Root;
  /** Left out where the format has no place for it. */
  about?: AboutManuscript;
  /** Pictures and companion files that came with it, by their `src` or `href` in the tree. */
  pictures: EnclosedFile[];
  companions: EnclosedFile[];
  /** What the reader itself had no place for. */
  leftOut: LeftOut[];
  /** Where a node of the tree stands in the file, in words that fit the format; null where it cannot be told. */
  whereOf: (node: Nodes) => string | null;
}

/** A format of manuscripts, as authors know it. */
export interface ManuscriptFormat {
  /** What authors call such a file. */
  name: string;
  /** How its files' names usually end, for choosing among files; what a file is, its content tells. */
  endings: readonly string[];
}

/** How manuscripts of one format are read. */
export interface ManuscriptReader {
  /** Whether a file is of this format, by its content; its name is only a hint. */
  accepts(file: BroughtFile): boolean;
  /** @throws ImportError where the file cannot be read */
  read(file: BroughtFile): Promise<ReadManuscript> | ReadManuscript;
  /**
   * The links of a file that has been read, by a second reader that shares nothing with the first: what arrived is
   * compared with them.
   */
  linksOf(file: BroughtFile): FileLink[];
}
