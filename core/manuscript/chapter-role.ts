/** A chapter of the reading order, or a page that is made to be linked to, outside of it. */
export type ChapterRole = "chapter" | "companion";
