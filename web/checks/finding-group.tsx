import { useState } from "react";
import type { BookFinding } from "../api/client";
import { Button } from "../parts/button";
import { SeverityMark } from "../parts/finding-mark";
import { ShowMore, useFirstOf } from "../parts/show-more";
import { plural } from "../parts/wording";
import { FindingRow, type FindingActions } from "./finding-row";

/** All that one rule has found, with why it matters and what one press does with all of it. */
export function FindingGroup({
  bookId,
  group,
  actions,
  onMendAll,
}: {
  bookId: string;
  group: readonly BookFinding[];
  actions: FindingActions;
  /** Puts all right that it is sure of; null where that is more than is shown. */
  onMendAll: (() => void) | null;
}) {
  const [isWhy, setWhy] = useState(false);
  const [first] = group as [BookFinding];
  const rows = useFirstOf(group);
  const mendable = group.filter((one) => one.mend && one.isSure && one.accepted === null);
  const isOpen = first.accepted === null;
  return (
    <section aria-label={first.title} className="mt-5 border border-hairline bg-paper">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hairline px-4 py-2">
        <h2 className="font-serif text-lg">{first.title}</h2>
        <SeverityMark severity={first.severity} />
        <span className="text-sm text-faint">{plural(group.length, "place")}</span>
        <Button kind="quiet" className="min-h-0 text-sm" aria-expanded={isWhy} onClick={() => setWhy(!isWhy)}>
          Why
        </Button>
        <span className="ml-auto flex flex-wrap gap-2">
          {first.rule.startsWith("destination-") && isOpen && group.length > 1 && (
            <Button disabled={actions.check === null} onClick={() => actions.check?.(addressesOf(group))}>
              Check them again
            </Button>
          )}
          {onMendAll && mendable.length > 1 && (
            <Button onClick={onMendAll}>Mend all {mendable.length}</Button>
          )}
        </span>
        {isWhy && <p className="basis-full text-sm text-faint">{first.source}</p>}
      </div>
      <ul
        // Whoever goes through them by keys comes to the next without a press in between.
        onFocus={({ currentTarget, target }) => {
          if (rows.left > 0 && currentTarget.lastElementChild?.contains(target)) rows.showMore();
        }}
      >
        {rows.shown.map((one) => (
          <FindingRow
            key={`${one.chapterId} ${one.subject}`}
            bookId={bookId}
            finding={one}
            actions={actions}
          />
        ))}
      </ul>
      <ShowMore of={rows} />
    </section>
  );
}

function addressesOf(findings: readonly BookFinding[]): string[] {
  return [...new Set(findings.flatMap(({ address }) => (address === null ? [] : [address])))];
}
