import { writeDestination } from "@vennet/core/destination/destination";
import type { LinkUse } from "@vennet/core/manuscript/links";
import type { EditorView } from "prosemirror-view";
import { useLayoutEffect, useRef, useState } from "react";
import { MarginCard, type CardActions, type CardState } from "./margin-card";
import { placeCards } from "./place-cards";

interface Placed {
  top: number;
  /** The bottom of the link's first line, where its hairline begins. */
  line: number;
}

const unchecked: CardState = { state: "unchecked", reason: "Not asked yet.", movedTo: null };

export function stateOf(use: LinkUse, states: Map<string, CardState>): CardState {
  return states.get(writeDestination(use.destination)) ?? unchecked;
}

/** The margin beside the text: a card for every link, at its line, joined to it by a hairline. */
export function Margin({
  view,
  uses,
  states,
  active,
  following,
  actions,
}: {
  view: EditorView;
  uses: LinkUse[];
  states: Map<string, CardState>;
  active: string | null;
  following: string | null;
  actions: CardActions;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [placed, setPlaced] = useState<Map<string, Placed>>(new Map());
  const [length, setLength] = useState(0);
  const [, remeasure] = useState(0);

  useLayoutEffect(() => {
    const place = (): void => {
      if (!box.current || view.isDestroyed) return;
      const origin = box.current.getBoundingClientRect().top;
      const lines = new Map<string, number>();
      const cards = uses.map((use) => {
        const start = view.coordsAtPos(use.from, 1);
        lines.set(use.id, start.bottom - origin);
        const card = box.current!.querySelector<HTMLElement>(`[data-card="${use.id}"]`);
        return { id: use.id, wish: start.top - origin, height: card?.offsetHeight ?? 52 };
      });
      const tops = placeCards(
        cards.sort((a, b) => a.wish - b.wish),
        active,
      );
      const next = new Map([...tops].map(([id, top]) => [id, { top, line: lines.get(id)! }]));
      setPlaced((old) => (same(old, next) ? old : next));
      // The page is as long as its margin, so that no card runs off the paper.
      setLength(Math.max(0, ...cards.map((card) => tops.get(card.id)! + card.height)));
    };
    place();
    // Pictures and fonts that arrive late, and a window that changes, move the lines.
    const observer = new ResizeObserver(place);
    observer.observe(view.dom);
    for (const card of box.current?.children ?? []) observer.observe(card);
    return () => observer.disconnect();
  });

  useLayoutEffect(() => {
    const onLoad = (): void => remeasure((n) => n + 1);
    view.dom.addEventListener("load", onLoad, true);
    return () => view.dom.removeEventListener("load", onLoad, true);
  }, [view]);

  return (
    <div
      ref={box}
      className="relative h-full"
      style={{ minHeight: length }}
      aria-label="Margin cards"
      role="group"
    >
      <svg aria-hidden className="pointer-events-none absolute top-0 -left-8 h-full w-8 overflow-visible">
        {uses.map((use) => {
          const at = placed.get(use.id);
          if (!at) return null;
          const card = at.top + 9;
          return (
            <path
              key={use.id}
              d={`M0 ${at.line}H10L24 ${card}H34`}
              fill="none"
              className={use.id === active ? "stroke-blue" : "stroke-hairline"}
              strokeWidth={use.id === active ? 1.5 : 1}
            />
          );
        })}
      </svg>
      {uses.map((use) => (
        <div
          key={use.id}
          data-card={use.id}
          className={`absolute inset-x-0 ${use.id === active ? "z-10" : ""}`}
          style={{ top: placed.get(use.id)?.top ?? 0, visibility: placed.has(use.id) ? undefined : "hidden" }}
        >
          <MarginCard
            use={use}
            known={stateOf(use, states)}
            active={use.id === active}
            following={use.id === following}
            actions={actions}
          />
        </div>
      ))}
    </div>
  );
}

function same(a: Map<string, Placed>, b: Map<string, Placed>): boolean {
  if (a.size !== b.size) return false;
  for (const [id, { top, line }] of b) {
    const old = a.get(id);
    if (!old || old.top !== top || Math.abs(old.line - line) > 0.5) return false;
  }
  return true;
}
