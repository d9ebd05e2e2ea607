import { useSyncExternalStore } from "react";

/** From which width on a window has room for what, in pixels. Below it the same stands in a drawer or a menu. */
const rooms = {
  /** The whole head of a page in one row. */
  head: matchMedia("(min-width: 1100px)"),
  /** The chapters and the margin cards, each beside the text. */
  columns: matchMedia("(min-width: 960px)"),
  /** Both, and the set pages. */
  pages: matchMedia("(min-width: 1400px)"),
  /** A table with many columns. */
  table: matchMedia("(min-width: 768px)"),
};

/** Whether the window has room for something, told anew when it changes. */
export function useRoomFor(what: keyof typeof rooms): boolean {
  const query = rooms[what];
  return useSyncExternalStore(
    (onChange) => {
      query.addEventListener("change", onChange);
      return () => query.removeEventListener("change", onChange);
    },
    () => query.matches,
  );
}
