import { useLayoutEffect, useRef, useState, type ReactNode } from "react";
import { placeCards } from "../write/links/place-cards";
import { useSeenPart } from "./use-seen-part";

const usual = 56;

/** Where on a page a link stands, in CSS px from its upper left corner. */
export interface PlacedLink {
  id: string;
  top: number;
  height: number;
  left: number;
}

/**
 * The margin beside a page: a card for each of its links at its height, joined to it by a hairline; none overlap. A page of
 * an e-book may have thousands: those of links on the screen are drawn, and the one that is worked on or has the focus.
 */
export function PageMargin({
  links,
  active,
  card,
  empty,
}: {
  links: readonly PlacedLink[];
  active: string | null;
  card: (id: string) => ReactNode;
  /** What can be done where there is none. */
  empty: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const seen = useSeenPart(box);
  const [heights, setHeights] = useState<ReadonlyMap<string, number>>(new Map());
  useLayoutEffect(() => {
    const measure = (): void => {
      const next = new Map<string, number>();
      for (const element of box.current?.querySelectorAll<HTMLElement>("[data-card]") ?? [])
        next.set(element.dataset["card"]!, element.offsetHeight);
      // Of those that are not drawn the last is kept.
      setHeights((old) =>
        [...next].every(([id, height]) => old.get(id) === height) ? old : new Map([...old, ...next]),
      );
    };
    measure();
    const observer = new ResizeObserver(measure);
    for (const element of box.current?.querySelectorAll("[data-card]") ?? []) observer.observe(element);
    return () => observer.disconnect();
  }, [links, active, seen]);
  const focused = document.activeElement?.closest<HTMLElement>("[data-card]")?.dataset["card"];
  const placed = links
    .map(({ id, top, height, left }) => ({ id, line: top + height / 2, wish: top, left }))
    .filter(({ id, line }) => id === active || id === focused || (line >= seen.from && line <= seen.to))
    .sort((a, b) => a.wish - b.wish || a.left - b.left);
  const tops = placeCards(
    placed.map(({ id, wish }) => ({ id, wish, height: heights.get(id) ?? usual })),
    active,
  );
  const length = Math.max(0, ...placed.map(({ id }) => tops.get(id)! + (heights.get(id) ?? usual)));
  return (
    <div
      ref={box}
      role="group"
      aria-label="Margin cards"
      className="relative w-[17rem] shrink-0"
      style={{ minHeight: length }}
    >
      <svg aria-hidden className="pointer-events-none absolute top-0 -left-6 h-full w-6 overflow-visible">
        {placed.map(({ id, line }) => (
          <path
            key={id}
            d={`M0 ${line}H6L18 ${tops.get(id)! + 9}H26`}
            fill="none"
            className={id === active ? "stroke-blue" : "stroke-hairline"}
            strokeWidth={id === active ? 1.5 : 1}
          />
        ))}
      </svg>
      {placed.map(({ id }) => (
        <div
          key={id}
          data-card={id}
          className={`absolute inset-x-0 ${id === active ? "z-10" : ""}`}
          style={{ top: tops.get(id) }}
        >
          {card(id)}
        </div>
      ))}
      {links.length === 0 && <p className="bg-paper p-3 text-sm text-faint">{empty}</p>}
    </div>
  );
}
