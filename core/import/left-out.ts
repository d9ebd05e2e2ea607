/** Something of a manuscript file that could not be taken over as it was, and what became of it. */
export interface LeftOut {
  /** Its place in the file, in words that fit the format, as “line 12”; null where it cannot be told. */
  where: string | null;
  /** What all of its sort are called, as “Highlighting”. */
  sort: string;
  what: string;
  why: string;
  /** Where the link leads that it is about, as the file says it; absent where it is about none. */
  href?: string;
}
