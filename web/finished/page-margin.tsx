import { boxAround, type PdfLink } from "@vennet/core/finished/pdf/pdf-page";
import { useLayoutEffect, useRef, useState, type ReactNode } from "react";
import { placeCards } from "../write/links/place-cards";
import { boxOf, type ShownPage } from "./shown-page";

const usual = 56;

/** The margin beside a page: a card for each of its links at its height, joined to it by a hairline; none overlap. */
export function PageMargin({
  shown,
  links,
  active,
  card,
}: {
  shown: ShownPage;
  links: readonly PdfLink[];
  active: string | null;
  card: (link: PdfLink) => ReactNode;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [heights, setHeights] = useState<ReadonlyMap<string, number>>(new Map());
  useLayoutEffect(() => {
    const measure = (): void => {
      const next = new Map<string, number>();
      for (const element of box.current?.querySelectorAll<HTMLElement>("[data-card]") ?? [])
        next.set(element.dataset["card"]!, element.offsetHeight);
      setHeights((old) =>
        old.size === next.size && [...next].every(([id, height]) => old.get(id) === height) ? old : next,
      );
    };
    measure();
    const observer = new ResizeObserver(measure);
    for (const element of box.current?.querySelectorAll("[data-card]") ?? []) observer.observe(element);
    return () => observer.disconnect();
  }, [links, active, shown]);
  const placed = links
    .map((link) => {
      const { top, height, left } = boxOf(shown, boxAround(link.areas.slice(0, 1)));
      return { link, line: top + height / 2, wish: top, left };
    })
    .sort((a, b) => a.wish - b.wish || a.left - b.left);
  const tops = placeCards(
    placed.map(({ link, wish }) => ({ id: link.id, wish, height: heights.get(link.id) ?? usual })),
    active,
  );
  const length = Math.max(
    0,
    ...placed.map(({ link }) => tops.get(link.id)! + (heights.get(link.id) ?? usual)),
  );
  return (
    <div
      ref={box}
      role="group"
      aria-label="Margin cards"
      className="relative w-[17rem] shrink-0"
      style={{ minHeight: length }}
    >
      <svg aria-hidden className="pointer-events-none absolute top-0 -left-6 h-full w-6 overflow-visible">
        {placed.map(({ link, line }) => (
          <path
            key={link.id}
            d={`M0 ${line}H6L18 ${tops.get(link.id)! + 9}H26`}
            fill="none"
            className={link.id === active ? "stroke-blue" : "stroke-hairline"}
            strokeWidth={link.id === active ? 1.5 : 1}
          />
        ))}
      </svg>
      {placed.map(({ link }) => (
        <div
          key={link.id}
          data-card={link.id}
          className={`absolute inset-x-0 ${link.id === active ? "z-10" : ""}`}
          style={{ top: tops.get(link.id) }}
        >
          {card(link)}
        </div>
      ))}
      {links.length === 0 && (
        <p className="bg-paper p-3 text-sm text-faint">
          No link is on this page. Pull over words to pick them, or draw an area.
        </p>
      )}
    </div>
  );
}
