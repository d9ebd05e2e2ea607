import type { Announcements, ScreenReaderInstructions, UniqueIdentifier } from "@dnd-kit/core";
import type { ChapterListing } from "../api/client";

export const howToMove: ScreenReaderInstructions = {
  draggable:
    "Space takes the chapter up, the arrow keys move it, Space sets it down. Escape leaves it where it was.",
};

/** What is said aloud while a chapter is moved: its title, and its place among those that it can stand between. */
export function movesAloud(chapters: readonly ChapterListing[]): Announcements {
  const titled = (id: UniqueIdentifier): string => {
    const title = chapters.find((chapter) => chapter.id === id)?.title;
    return title ? `“${title}”` : "The untitled chapter";
  };
  const placed = (id: UniqueIdentifier, over: UniqueIdentifier | undefined): string | null => {
    const apart = chapters.find((chapter) => chapter.id === id)?.role === "companion";
    const among = chapters.filter(({ role }) => (role === "companion") === apart);
    const place = among.findIndex((chapter) => chapter.id === over);
    return place === -1 ? null : `place ${place + 1} of ${among.length}`;
  };
  return {
    onDragStart: ({ active }) => `${titled(active.id)} is taken up.`,
    onDragOver: ({ active, over }) => {
      const place = placed(active.id, over?.id);
      return `${titled(active.id)} ${place ? `is at ${place}` : "cannot stand here"}.`;
    },
    onDragEnd: ({ active, over }) => {
      const place = placed(active.id, over?.id);
      return `${titled(active.id)} ${place ? `was set down at ${place}` : "stays where it was"}.`;
    },
    onDragCancel: ({ active }) => `${titled(active.id)} stays where it was.`,
  };
}
