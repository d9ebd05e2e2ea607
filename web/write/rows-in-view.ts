import { firstAt } from "@vennet/core/manuscript/first-at";
import { useLayoutEffect, useRef, useState, type RefObject } from "react";

/** How far beyond its edges a list counts as seen, in CSS px. */
const around = 300;

const rowsOf = (list: HTMLElement): NodeListOf<HTMLElement> => list.querySelectorAll("[data-chapter]");

/** Which chapters of a list that scrolls are on the screen, and a little around it. */
export function useRowsInView(list: RefObject<HTMLElement | null>): ReadonlySet<string> {
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set());
  const look = useRef(() => {
    if (!list.current) return;
    const { top, bottom } = list.current.getBoundingClientRect();
    const rows = rowsOf(list.current);
    const from = firstAt(rows, (row) => row.getBoundingClientRect().bottom > top - around);
    const to = firstAt(rows, (row) => row.getBoundingClientRect().top > bottom + around);
    const ids = Array.from({ length: Math.max(0, to - from) }, (_, i) => rows[from + i]!.dataset["chapter"]!);
    setSeen((old) => (ids.length === old.size && ids.every((id) => old.has(id)) ? old : new Set(ids)));
  });
  // Whatever it is drawn for may have moved its rows.
  useLayoutEffect(() => look.current());
  useLayoutEffect(() => {
    const scroller = list.current;
    const again = (): void => look.current();
    const sizes = new ResizeObserver(again);
    if (scroller) sizes.observe(scroller);
    scroller?.addEventListener("scroll", again, { passive: true });
    return () => {
      sizes.disconnect();
      scroller?.removeEventListener("scroll", again);
    };
  }, [list]);
  return seen;
}

/** Scrolls a list to a chapter that it does not show, once it is that one. */
export function useScrolledTo(list: RefObject<HTMLElement | null>, chapterId: string | null): void {
  useLayoutEffect(() => {
    const row = chapterId !== null && list.current?.querySelector(`[data-chapter="${chapterId}"]`);
    if (!row || !list.current) return;
    const [outer, inner] = [list.current.getBoundingClientRect(), row.getBoundingClientRect()];
    if (inner.top >= outer.top && inner.bottom <= outer.bottom) return;
    list.current.scrollTop += (inner.top + inner.bottom - outer.top - outer.bottom) / 2;
  }, [list, chapterId]);
}
