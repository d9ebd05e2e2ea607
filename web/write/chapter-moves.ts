import type { Announcements, ScreenReaderInstructions, UniqueIdentifier } from "@dnd-kit/core";
import type { ChapterListing } from "../api/client";

export const howToMove: ScreenReaderInstructions = {
  draggable:
    "Space takes the chapter up, the arrow keys move it, Space sets it down. Escape leaves it where it was.",
};

/** A chapter as it is said aloud. */
export const titled = (chapter: ChapterListing | undefined): string =>
  chapter?.title ? `“${chapter.title}”` : "The untitled chapter";

/** A place, counted from 0, as it is said aloud. */
export const atPlace = (at: number, among: readonly ChapterListing[]): string =>
  `place ${at + 1} of ${among.length}`;

/** What is said aloud while a chapter is drawn by hand: its title, and its place among those that it can stand between. */
export function movesAloud(chapters: readonly ChapterListing[]): Announcements {
  const called = (id: UniqueIdentifier): string => titled(chapters.find((chapter) => chapter.id === id));
  const placed = (id: UniqueIdentifier, over: UniqueIdentifier | undefined): string | null => {
    const apart = chapters.find((chapter) => chapter.id === id)?.role === "companion";
    const among = chapters.filter(({ role }) => (role === "companion") === apart);
    const place = among.findIndex((chapter) => chapter.id === over);
    return place === -1 ? null : atPlace(place, among);
  };
  return {
    onDragStart: ({ active }) => `${called(active.id)} is taken up.`,
    onDragOver: ({ active, over }) => {
      const place = placed(active.id, over?.id);
      return `${called(active.id)} ${place ? `is at ${place}` : "cannot stand here"}.`;
    },
    onDragEnd: ({ active, over }) => {
      const place = placed(active.id, over?.id);
      return `${called(active.id)} ${place ? `was set down at ${place}` : "stays where it was"}.`;
    },
    onDragCancel: ({ active }) => `${called(active.id)} stays where it was.`,
  };
}
