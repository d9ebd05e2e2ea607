import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { Waiting } from "../parts/notice";
import { StateMark } from "../parts/state-mark";
import { plural } from "../parts/wording";
import { KindMark } from "../destinations/kind-mark";
import type { Filter } from "./ledger-view";
import { NotRead } from "../parts/not-read";

/** The links by where they lead, the most used destination first. */
export function LedgerGroups({
  bookId,
  filter,
  onOpen,
}: {
  bookId: string;
  filter: Filter;
  /** Shows the links of one destination. */
  onOpen: (destination: string) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const groups = useQuery({
    queryKey: keys.groups(bookId, filter),
    queryFn: () =>
      answerOf(api.GET("/api/books/{bookId}/links/groups", { params: { path: { bookId }, query: filter } })),
    placeholderData: keepPreviousData,
  });
  const rows = groups.data ?? [];
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 52,
    overscan: 8,
  });
  if (!groups.data) return groups.error ? <NotRead of={groups} /> : <Waiting what="Gathering the links" />;
  return (
    <div
      ref={scroller}
      className="min-h-0 grow overflow-auto bg-paper"
      tabIndex={0}
      role="region"
      aria-label="Links by destination"
    >
      {rows.length === 0 && <p className="p-8">No link is like that.</p>}
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start, key }) => {
          const { kind, destination, destinationName, state, count, texts } = rows[index]!;
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              className="absolute inset-x-0 border-b border-hairline"
              style={{ transform: `translateY(${start}px)` }}
            >
              <button
                type="button"
                onClick={() => onOpen(destination)}
                className="grid w-full grid-cols-[4rem_7rem_minmax(0,1fr)_auto] items-baseline gap-3 px-4 py-1.5 text-left hover:bg-blue-wash"
              >
                <span className="text-right tabular-nums">{count.toLocaleString("en")}</span>
                <KindMark kind={kind} />
                <span className="min-w-0">
                  <span className="block truncate font-mono text-[0.85rem]">{destinationName}</span>
                  <span className="block truncate text-sm text-faint">
                    {texts.map((text) => `“${text}”`).join(", ")}
                    {texts.length === 5 && " …"}
                  </span>
                </span>
                {kind === "web" ? <StateMark state={state} /> : <span />}
                <span className="sr-only">Show {plural(count, "link")}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
