import type { LinkUse } from "@vennet/core/manuscript/links";
import type { EditorView } from "prosemirror-view";
import { memo, useLayoutEffect, useRef, useState } from "react";
import { lineOf, linksInView } from "./links-in-view";
import type { CardContext } from "./card-context";
import { MarginCard } from "./margin-card";
import { placeCards } from "./place-cards";

interface Placed {
  top: number;
  /** The bottom of the link's first line, where its hairline begins. */
  line: number;
}

interface Layout {
  uses: readonly LinkUse[];
  placed: Map<string, Placed>;
  folded: boolean;
  /** How far down the cards reach. */
  length: number;
}

const openHeight = 58;
const foldedHeight = 20;
const nothing: Layout = { uses: [], placed: new Map(), folded: false, length: 0 };

/**
 * The margin beside the text: a card for every link in view, at its line, joined to it by a hairline.
 * Where more links are in view than cards have room, the cards fold to a line each.
 */
export const Margin = memo(function Margin({
  view,
  uses,
  active,
  context,
}: {
  view: EditorView;
  uses: readonly LinkUse[];
  active: LinkUse | null;
  context: CardContext;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [layout, setLayout] = useState(nothing);
  const latestLayout = useRef(layout);
  const activeId = active?.id ?? null;

  const lay = (): void => {
    if (!box.current || view.isDestroyed) return;
    // A link may have been removed since, and the text changed under a card that waits to be drawn.
    if (uses.some(({ to }) => to > view.state.doc.content.size)) return;
    const window = (box.current.closest("[data-scroll]") ?? document.documentElement).getBoundingClientRect();
    const origin = box.current.getBoundingClientRect().top;
    const seen = linksInView(view, uses, window);
    // The card that is worked in stays, however far one scrolls.
    if (active && !seen.some(({ id }) => id === active.id)) seen.push(active);
    const room = seen.length > 1 ? heightBetween(view, seen) + openHeight : Infinity;
    const folded = seen.length * openHeight > room + window.height / 3;
    const lines = new Map<string, number>();
    const cards = seen.map((use) => {
      const start = lineOf(view, use);
      lines.set(use.id, start.bottom - origin);
      const card = box.current!.querySelector<HTMLElement>(`[data-card="${use.id}"]`);
      const usual = folded ? foldedHeight : openHeight - 6;
      return { id: use.id, wish: start.top - origin, height: card?.offsetHeight ?? usual };
    });
    const tops = placeCards(
      cards.sort((a, b) => a.wish - b.wish),
      activeId,
    );
    const placed = new Map([...tops].map(([id, top]) => [id, { top, line: lines.get(id)! }]));
    // The page is as long as its margin, so that no card runs off the paper.
    const length = Math.max(0, ...cards.map((card) => tops.get(card.id)! + card.height));
    const next = { uses: seen, placed, folded, length };
    if (same(latestLayout.current, next)) return;
    latestLayout.current = next;
    setLayout(next);
  };
  const latestLay = useRef(lay);

  useLayoutEffect(() => {
    latestLay.current = lay;
    lay();
  });

  // Pictures and fonts that arrive late, a window that changes, and scrolling bring other lines into view.
  useLayoutEffect(() => {
    let frame = 0;
    const later = (): void => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => latestLay.current());
    };
    const observer = new ResizeObserver(later);
    observer.observe(view.dom);
    const scroller = box.current?.closest("[data-scroll]");
    scroller?.addEventListener("scroll", later, { passive: true });
    view.dom.addEventListener("load", later, true);
    return () => {
      observer.disconnect();
      cancelAnimationFrame(frame);
      scroller?.removeEventListener("scroll", later);
      view.dom.removeEventListener("load", later, true);
    };
  }, [view]);

  // A card that grows or shrinks makes room.
  useLayoutEffect(() => {
    const observer = new ResizeObserver(() => latestLay.current());
    for (const card of box.current?.children ?? []) observer.observe(card);
    return () => observer.disconnect();
  }, [layout.uses, activeId]);

  const { placed, folded } = layout;
  // A link that has just been removed has no card, though the layout is a moment old.
  const present = new Map(uses.map((use) => [use.id, use]));
  const shown = layout.uses.flatMap(({ id }) => present.get(id) ?? []);
  return (
    <div
      ref={box}
      className="relative h-full"
      style={{ minHeight: layout.length }}
      aria-label="Margin cards"
      role="group"
    >
      <svg aria-hidden className="pointer-events-none absolute top-0 -left-8 h-full w-8 overflow-visible">
        {shown.map((use) => {
          const at = placed.get(use.id);
          if (!at) return null;
          const card = at.top + 9;
          return (
            <path
              key={use.id}
              d={`M0 ${at.line}H10L24 ${card}H34`}
              fill="none"
              className={use.id === activeId ? "stroke-blue" : "stroke-hairline"}
              strokeWidth={use.id === activeId ? 1.5 : 1}
            />
          );
        })}
      </svg>
      {shown.map((use) => (
        <div
          key={use.id}
          data-card={use.id}
          className={`absolute inset-x-0 ${use.id === activeId ? "z-10" : ""}`}
          style={{ top: placed.get(use.id)?.top ?? 0, visibility: placed.has(use.id) ? undefined : "hidden" }}
        >
          <MarginCard use={use} active={use.id === activeId} folded={folded} context={context} />
        </div>
      ))}
    </div>
  );
});

function heightBetween(view: EditorView, uses: readonly LinkUse[]): number {
  return view.coordsAtPos(uses.at(-1)!.from, 1).top - view.coordsAtPos(uses[0]!.from, 1).top;
}

function same(a: Layout, b: Layout): boolean {
  if (a.placed.size !== b.placed.size || a.folded !== b.folded || a.length !== b.length) return false;
  for (const [id, { top, line }] of b.placed) {
    const old = a.placed.get(id);
    if (!old || old.top !== top || Math.abs(old.line - line) > 0.5) return false;
  }
  return true;
}
