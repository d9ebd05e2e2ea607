import { nameDestination, shortDestination } from "@vennet/core/destination/destination";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { ArrowDown, ArrowUp, ChevronDown, ChevronUp } from "lucide-react";
import type { EditorView } from "prosemirror-view";
import { useEffect, useRef, useState } from "react";
import { KindMark } from "../../destinations/kind-mark";
import { Button } from "../../parts/button";
import { plural } from "../../parts/wording";
import type { CardContext } from "./card-context";
import { linksInView } from "./links-in-view";
import { MarginCard } from "./margin-card";

/**
 * The margin cards of a narrow window, at its foot: closed, one line with the link at the cursor and where it leads;
 * open, that link's card, or the cards of the links in view.
 */
export function CardsDrawer({
  view,
  uses,
  active,
  context,
  onStep,
}: {
  view: EditorView;
  uses: readonly LinkUse[];
  active: LinkUse | null;
  context: CardContext;
  onStep: (step: 1 | -1) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const { names, following } = context;
  // What the author asked for is not behind a closed door.
  useEffect(() => {
    if (following !== null) setOpen(true);
  }, [following]);
  return (
    <div
      role="group"
      aria-label="Links"
      className="sticky bottom-0 z-20 border-t border-edge bg-paper px-3"
      onKeyDown={(event) => {
        if (event.key !== "Escape" || !isOpen) return;
        setOpen(false);
        view.focus();
      }}
    >
      {isOpen && (
        <div className="max-h-[40dvh] overflow-y-auto border-b border-hairline py-2">
          {active ? (
            <MarginCard use={active} active context={context} />
          ) : (
            <CardsInView view={view} uses={uses} context={context} />
          )}
        </div>
      )}
      <div className="flex items-center gap-2 text-sm">
        <Button kind="quiet" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)} className="shrink-0">
          {isOpen ? <ChevronDown aria-hidden size={15} /> : <ChevronUp aria-hidden size={15} />}
          {plural(uses.length, "link")}
        </Button>
        {active && (
          <span
            data-tip={nameDestination(active.destination, names)}
            className="flex min-w-0 items-baseline gap-2"
          >
            <KindMark kind={active.destination.kind} />
            <span className="truncate font-semibold">{shortDestination(active.destination, names)}</span>
          </span>
        )}
        <span className="ml-auto flex shrink-0">
          {(
            [
              [-1, "Previous link", "Alt ↑", ArrowUp],
              [1, "Next link", "Alt ↓", ArrowDown],
            ] as const
          ).map(([step, words, keys, Icon]) => (
            <Button
              key={step}
              kind="quiet"
              aria-label={words}
              data-tip={`${words} (${keys})`}
              disabled={uses.length === 0}
              onClick={() => onStep(step)}
            >
              <Icon aria-hidden size={16} />
            </Button>
          ))}
        </span>
      </div>
    </div>
  );
}

function CardsInView({
  view,
  uses,
  context,
}: {
  view: EditorView;
  uses: readonly LinkUse[];
  context: CardContext;
}) {
  const box = useRef<HTMLUListElement>(null);
  const [seen, setSeen] = useState<readonly LinkUse[]>([]);
  useEffect(() => {
    const scroller = box.current!.closest("[data-scroll]")!;
    let frame = 0;
    const look = (): void => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(() => {
        // The text may have changed since these links were read from it.
        if (view.isDestroyed || uses.some(({ to }) => to > view.state.doc.content.size)) return;
        setSeen(linksInView(view, uses, scroller.getBoundingClientRect(), 0));
      });
    };
    look();
    scroller.addEventListener("scroll", look, { passive: true });
    return () => {
      cancelAnimationFrame(frame);
      scroller.removeEventListener("scroll", look);
    };
  }, [view, uses]);
  return (
    <ul ref={box} className="grid gap-1.5">
      {seen.map((use) => (
        <li key={use.id}>
          <MarginCard use={use} active={false} folded context={context} />
        </li>
      ))}
      {seen.length === 0 && <li className="text-faint">No link is in view.</li>}
    </ul>
  );
}
