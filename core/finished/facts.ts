/** What is known of a finished file besides its parts. */
export interface FinishedFacts {
  /** As the file says it; null where it says none. */
  title: string | null;
  author: string | null;
  language: string | null;
  pages: number;
  /** Whether its structure is told, so that links can be put into it (ISO 32000-1, 14.8). */
  isTagged: boolean;
  /** Whether a signature stands in it, which any change breaks (12.8). */
  isSigned: boolean;
  /**
   * Whether the tables by which programs find what is in it are broken, so that they search for it; a version that is saved
   * brings new ones (7.5.4).
   */
  hasBrokenTable: boolean;
}
