export const chapterRoles = ["chapter", "unnumbered", "part", "companion"] as const;

/**
 * A chapter of the reading order, one that carries no number, as a preface, the title page of a part that the chapters
 * behind it belong to, or a page that is made to be linked to, outside of the order.
 */
export type ChapterRole = (typeof chapterRoles)[number];

/** Those of the reading order, of which each can become another. */
export const rolesInOrder = ["chapter", "unnumbered", "part"] as const satisfies readonly ChapterRole[];

/** Whether a value read from outside is a role. */
export function isChapterRole(value: unknown): value is ChapterRole {
  return (chapterRoles as readonly unknown[]).includes(value);
}
