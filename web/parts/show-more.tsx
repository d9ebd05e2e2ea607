import { useRef, useState } from "react";
import { flushSync } from "react-dom";
import { Button } from "./button";

/** So many entries of a list are shown at first: thousands keep a browser busy for many seconds. */
export const shownAtFirst = 100;

/** How much of a list is shown. */
interface Extent {
  count: number;
  /** How many more the next press shows, and how many there are. */
  next: number;
  left: number;
  showMore: () => void;
}

/** How much is shown of a list that may be long; each time that more is asked for, twice as much. */
function useExtent(length: number): Extent {
  const [count, setCount] = useState(shownAtFirst);
  const left = Math.max(0, length - count);
  return { count, next: Math.min(count, left), left, showMore: () => setCount(2 * count) };
}

/** The first entries of a list, of which more are shown when they are asked for. */
export function useFirstOf<T>(all: readonly T[]): Extent & { shown: readonly T[] } {
  const extent = useExtent(all.length);
  return { ...extent, shown: extent.left === 0 ? all : all.slice(0, extent.count) };
}

/** The same for lists that stand one behind the other. @returns with how many entries of each are shown */
export function useFirstOfLists(lists: readonly (readonly unknown[])[]): Extent & { ofEach: number[] } {
  const extent = useExtent(lists.reduce((sum, { length }) => sum + length, 0));
  let room = extent.count;
  const ofEach = lists.map(({ length }) => {
    const count = Math.min(length, room);
    room -= count;
    return count;
  });
  return { ...extent, ofEach };
}

/** The end of a list that goes on. Who asks for more has the focus on the first of it. */
export function ShowMore({ of: { next, left, showMore } }: { of: Extent }) {
  const place = useRef<HTMLParagraphElement>(null);
  if (left === 0) return null;
  const goOn = (): void => {
    const last = lastEntryBefore(place.current);
    flushSync(showMore);
    const first = last?.nextElementSibling ?? last?.closest("section")?.nextElementSibling;
    if (!(first instanceof HTMLElement)) return;
    first.tabIndex = -1;
    first.focus({ preventScroll: true });
  };
  return (
    <p ref={place} className="-mt-px border-t border-hairline px-4 py-2 text-sm">
      <Button kind="quiet" className="-ml-1" onClick={goOn}>
        {next === left ? `Show the other ${left}` : `Show ${next} more of ${left}`}
      </Button>
    </p>
  );
}

function lastEntryBefore(place: Element | null): Element | null {
  let entry = place?.previousElementSibling ?? null;
  while (entry && /^(SECTION|UL|TABLE|TBODY)$/.test(entry.tagName)) entry = entry.lastElementChild;
  return entry;
}
