import { groupTold } from "@vennet/core/import/arrival/group-arrival";
import type { LeftOut } from "@vennet/core/import/left-out";
import { Button } from "../../parts/button";

const mostShown = 20;

/** Says in one line what of a pasted text could not be taken over, with all of it on asking. */
export function PastedNotice({ leftOut, onClose }: { leftOut: readonly LeftOut[]; onClose: () => void }) {
  if (leftOut.length === 0) return null;
  const groups = groupTold(leftOut, mostShown);
  return (
    <div
      role="status"
      className="flex flex-wrap items-start gap-x-4 border-b border-hairline bg-paper px-4 py-1.5"
    >
      <details className="min-w-0 flex-1 [overflow-wrap:anywhere]">
        <summary className="cursor-pointer">
          Not all of what you pasted could be taken over:{" "}
          {groups.map(({ sort, count }) => `${sort} (${count})`).join(", ")}.
        </summary>
        <ul
          aria-label="What could not be taken over"
          tabIndex={0}
          className="mt-1 ml-4 max-h-48 list-disc overflow-y-auto"
        >
          {groups.flatMap(({ items }) =>
            items.map(({ what, why }, i) => (
              <li key={`${what} ${i}`}>
                {what}: {why}
              </li>
            )),
          )}
        </ul>
      </details>
      <Button kind="quiet" onClick={onClose}>
        Close
      </Button>
    </div>
  );
}
