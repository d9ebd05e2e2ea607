import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { useEffect, useRef } from "react";
import { useStandIns } from "../../api/stand-ins";
import { Button } from "../../parts/button";
import { wayTo } from "../../destinations/kinds";

/** Shows the full address before anything outside the book is opened, and asks. */
export function FollowPanel({
  bookId,
  destination,
  onGoTo,
  onDone,
}: {
  bookId: string;
  destination: Destination;
  /** Goes to a place in the book. */
  onGoTo: (place: string) => void;
  onDone: () => void;
}) {
  const standIns = useStandIns();
  const way = wayTo(bookId, destination, standIns);
  const go = useRef<HTMLDivElement>(null);
  const isKnown = way.href !== null || destination.kind === "place";
  // Where the author goes on from here: the next key is for this panel, not for the text.
  useEffect(() => go.current?.querySelector<HTMLElement>("a, button")?.focus(), [isKnown]);
  return (
    <div
      className="mt-2 border-t border-hairline pt-2"
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      <p>{way.words}</p>
      <div ref={go} className="mt-1 flex flex-wrap items-center gap-3">
        {way.href !== null && (
          <a
            href={way.href}
            target="_blank"
            rel="noreferrer noopener"
            onClick={onDone}
            className="border border-blue bg-blue px-2 py-0.5 text-paper"
          >
            Open in a new tab
          </a>
        )}
        {destination.kind === "place" && (
          <Button kind="main" onClick={() => onGoTo(destination.target)}>
            Go there
          </Button>
        )}
        <Button kind="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
