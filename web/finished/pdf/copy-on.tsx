import { useState } from "react";
import { Button } from "../../parts/button";

/** Puts the same link at the same place of pages behind, as a way back to the front stands on every page. */
export function CopyOn({ pagesBehind, onCopy }: { pagesBehind: number; onCopy: (pages: number) => void }) {
  const [count, setCount] = useState<number | null>(null);
  if (count === null)
    return (
      <Button kind="quiet" className="-ml-1" onClick={() => setCount(Math.min(1, pagesBehind))}>
        Copy to further pages
      </Button>
    );
  return (
    <span className="flex items-center gap-1.5">
      <label className="flex items-center gap-1.5">
        To the next
        <input
          type="number"
          autoFocus
          min={1}
          max={pagesBehind}
          value={count}
          onChange={(event) =>
            !Number.isNaN(event.target.valueAsNumber) &&
            setCount(Math.min(Math.max(1, event.target.valueAsNumber), pagesBehind))
          }
          className="min-h-6 w-16 border border-hairline bg-paper px-1 text-right tabular-nums"
        />
        pages
      </label>
      <Button
        kind="quiet"
        onClick={() => {
          onCopy(count);
          setCount(null);
        }}
      >
        Copy
      </Button>
    </span>
  );
}
