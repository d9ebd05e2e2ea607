import { arrayMove } from "@dnd-kit/sortable";
import { useState, type KeyboardEvent } from "react";
import type { ChapterListing } from "../api/client";
import { atPlace, titled } from "./chapter-moves";

/**
 * Chapters taken up, moved and set down with the keys. Which place one is held at follows from the keys alone, so none
 * is lost however soon it comes after another.
 */
export function useMovesByKey(move: (id: string, toPlaceOf: string | undefined) => void) {
  const [held, setHeld] = useState<{ id: string; at: number } | null>(null);
  const [said, setSaid] = useState("");

  const setDown = (chapter: ChapterListing, words: string): void => {
    setHeld(null);
    setSaid(`${titled(chapter)} ${words}.`);
  };
  const onKeyDown = (event: KeyboardEvent, chapter: ChapterListing, among: ChapterListing[]): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return;
    const isHeld = held?.id === chapter.id;
    const takes = event.key === " " || event.key === "Enter";
    if (takes && !isHeld) {
      const at = among.indexOf(chapter);
      setHeld({ id: chapter.id, at });
      setSaid(`${titled(chapter)} is taken up at ${atPlace(at, among)}.`);
    } else if (takes) {
      setDown(chapter, `was set down at ${atPlace(held!.at, among)}`);
      move(chapter.id, among[held!.at]?.id);
    } else if (isHeld && event.key === "Escape") {
      setDown(chapter, "stays where it was");
    } else if (isHeld && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      const to = held.at + (event.key === "ArrowDown" ? 1 : -1);
      const at = Math.min(Math.max(to, 0), among.length - 1);
      setHeld({ id: chapter.id, at });
      setSaid(`${titled(chapter)} is at ${atPlace(at, among)}.`);
    } else return;
    event.preventDefault();
  };
  return {
    said,
    isHeld: (chapter: ChapterListing): boolean => held?.id === chapter.id,
    /** The chapters as they are seen: the one that is held stands where it would be set down. */
    seen: (among: ChapterListing[]): ChapterListing[] => {
      const from = held ? among.findIndex(({ id }) => id === held.id) : -1;
      return from === -1 ? among : arrayMove(among, from, Math.min(held!.at, among.length - 1));
    },
    onKeyDown,
    /** Whoever goes elsewhere while a chapter is held leaves it where it was. */
    leave: (chapter: ChapterListing): void => {
      if (held?.id === chapter.id) setDown(chapter, "stays where it was");
    },
  };
}
