import type { Destination } from "@vennet/core/destination/kinds/kinds";
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
  return (
    <div className="mt-2 border-t border-hairline pt-2">
      <p>{way.words}</p>
      <div className="mt-1 flex flex-wrap items-center gap-3">
        {way.href !== null && (
          <a
            autoFocus
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
          <Button autoFocus kind="main" onClick={() => onGoTo(destination.target)}>
            Go there
          </Button>
        )}
        <Button kind="quiet" onClick={onDone}>
          Stay here
        </Button>
      </div>
    </div>
  );
}
