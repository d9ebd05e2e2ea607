export const chapterRoles = ["chapter", "part", "companion"] as const;

/**
 * A chapter of the reading order, the title page of a part that the chapters behind it belong to, or a page that is made to
 * be linked to, outside of the order.
 */
export type ChapterRole = (typeof chapterRoles)[number];
