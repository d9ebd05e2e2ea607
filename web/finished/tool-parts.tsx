import { ChevronLeft, ChevronRight } from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "../parts/button";
import { plural } from "../parts/wording";

export const toolBox = "min-h-7 border border-hairline bg-paper px-1";

/** Turns the pages of a file, with what says which is shown between the two ways. */
export function TurnPages({
  number,
  count,
  onTurn,
  children,
}: {
  number: number;
  count: number;
  onTurn: (to: number) => void;
  children: ReactNode;
}) {
  return (
    <span className="flex min-w-0 items-center gap-1.5">
      <Button
        kind="quiet"
        aria-label="Page before"
        data-tip="Page before"
        disabled={number === 1}
        onClick={() => onTurn(number - 1)}
      >
        <ChevronLeft aria-hidden size={16} />
      </Button>
      {children}
      <Button
        kind="quiet"
        aria-label="Next page"
        data-tip="Next page"
        disabled={number === count}
        onClick={() => onTurn(number + 1)}
      >
        <ChevronRight aria-hidden size={16} />
      </Button>
    </span>
  );
}

/** How many links a file has, and the way from one to the next. */
export function LinkSteps({ links, onStep }: { links: number; onStep: (by: 1 | -1) => void }) {
  return (
    <span className="flex items-center gap-1">
      <Button
        kind="quiet"
        disabled={links === 0}
        onClick={() => onStep(-1)}
        aria-label="Link before"
        data-tip="Link before (p)"
      >
        <ChevronLeft aria-hidden size={16} />
      </Button>
      <span className="tabular-nums">{plural(links, "link")}</span>
      <Button
        kind="quiet"
        disabled={links === 0}
        onClick={() => onStep(1)}
        aria-label="Next link"
        data-tip="Next link (n)"
      >
        <ChevronRight aria-hidden size={16} />
      </Button>
    </span>
  );
}

/** Finds words in a file, from the page that is shown on. */
export function WordSearch({
  label,
  typed,
  told,
  onType,
  onNextPage,
  onLink,
}: {
  label: string;
  typed: string;
  /** What was found. */
  told: string;
  onType: (words: string) => void;
  onNextPage: () => void;
  /** Links the first of the words that were found; null where there are none. */
  onLink: (() => void) | null;
}) {
  return (
    <form
      role="search"
      className="flex items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        onNextPage();
      }}
    >
      <input
        aria-label={label}
        placeholder={label}
        value={typed}
        onChange={(event) => onType(event.target.value)}
        className={`${toolBox} w-40`}
      />
      {typed.trim() !== "" && (
        <>
          <span role="status" className="text-sm text-faint">
            {told}
          </span>
          <Button type="submit" kind="quiet">
            Next page with it
          </Button>
          {onLink && (
            <Button kind="quiet" onClick={onLink}>
              Link it
            </Button>
          )}
        </>
      )}
    </form>
  );
}
