import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { answerOf, api, type LedgerRow } from "../api/client";
import { keys } from "../api/keys";
import { EmptyPage } from "../parts/empty-page";
import { Waiting } from "../parts/notice";
import { plural } from "../parts/wording";
import { useRoomFor } from "../parts/use-window";
import { LedgerCard, LedgerTableRow } from "./ledger-table-row";
import { rowKey, rowsAtOnce, type Column, type Filter, type Sort } from "./ledger-view";
import { useColumns } from "./use-columns";
import { RowEdit } from "./row-edit";
import { NotRead } from "../parts/not-read";

const rowHeight = 34;
const cardHeight = 84;

/** The links that a filter matches, in an order; rows are fetched as they are scrolled to. */
export function LedgerTable({
  bookId,
  filter,
  sort,
  onSort,
  shown,
  chosen,
  isAllChosen,
  onChoose,
  onChooseAll,
}: {
  bookId: string;
  filter: Filter;
  sort: { by: Sort; direction: "up" | "down" };
  onSort: (sort: { by: Sort; direction: "up" | "down" }) => void;
  shown: ReadonlySet<Column>;
  chosen: ReadonlySet<string>;
  isAllChosen: boolean;
  onChoose: (chosen: ReadonlySet<string>) => void;
  onChooseAll: (all: boolean) => void;
}) {
  const all = useColumns();
  const scroller = useRef<HTMLDivElement>(null);
  const isTable = useRoomFor("table");
  const height = isTable ? rowHeight : cardHeight;
  const [editing, setEditing] = useState<string | null>(null);
  /** The row that the last choice was made at, for choosing a range with Shift. */
  const lastChosen = useRef<number | null>(null);
  const page = (offset: number) => ({
    queryKey: keys.ledger(bookId, filter, sort, offset),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/links", {
          params: {
            path: { bookId },
            query: { ...filter, sort: sort.by, direction: sort.direction, offset, limit: rowsAtOnce },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const first = useQuery(page(0));
  const total = first.data?.total ?? 0;
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 12,
  });
  const visible = virtual.getVirtualItems();
  const pages = [...new Set(visible.map(({ index }) => Math.floor(index / rowsAtOnce)))];
  const fetched = useQueries({ queries: pages.map((n) => page(n * rowsAtOnce)) });
  const rows = new Map<number, LedgerRow>();
  fetched.forEach(({ data }, i) => data?.rows.forEach((row, j) => rows.set(pages[i]! * rowsAtOnce + j, row)));
  const { measure } = virtual;
  useEffect(() => measure(), [height, measure]);
  useEffect(() => {
    scroller.current?.scrollTo({ top: 0 });
    lastChosen.current = null;
  }, [filter, sort]);

  const choose = (index: number, row: LedgerRow, range: boolean): void => {
    const next = new Set(chosen);
    const key = rowKey(row);
    const on = !next.has(key);
    const from = range && lastChosen.current !== null ? lastChosen.current : index;
    for (let i = Math.min(from, index); i <= Math.max(from, index); i++) {
      const one = rows.get(i);
      if (!one) continue;
      if (on) next.add(rowKey(one));
      else next.delete(rowKey(one));
    }
    lastChosen.current = index;
    onChoose(next);
  };
  const latestChoose = useRef(choose);
  latestChoose.current = choose;
  const chooseLatest = useCallback(
    (index: number, row: LedgerRow, range: boolean) => latestChoose.current(index, row, range),
    [],
  );
  if (!first.data)
    return first.error ? (
      <div className="p-5">
        <NotRead of={first} />
      </div>
    ) : (
      <Waiting what="Reading the links" />
    );
  const seen = all.filter(([column]) => shown.has(column));
  const template = isTable ? `2rem ${seen.map(([, , width]) => width).join(" ")} 5.5rem` : "2rem 1fr auto";
  return (
    <div
      ref={scroller}
      role="table"
      aria-label="Link ledger"
      aria-rowcount={total + 1}
      className="min-h-0 grow overflow-auto bg-paper"
      tabIndex={0}
    >
      <div
        role="row"
        aria-rowindex={1}
        className="sticky top-0 z-10 grid md:min-w-fit items-center gap-x-2 border-b border-edge bg-paper px-3 py-1"
        style={{ gridTemplateColumns: template }}
      >
        <span role="columnheader">
          <input
            type="checkbox"
            aria-label={`Choose all ${total}`}
            className="block size-4 accent-blue"
            checked={isAllChosen}
            disabled={total === 0}
            onChange={(event) => onChooseAll(event.target.checked)}
          />
        </span>
        {!isTable && (
          <span role="columnheader">
            <select
              aria-label="Order"
              value={sort.by}
              onChange={({ target }) => onSort({ by: target.value as Sort, direction: "up" })}
              className="min-h-7 border border-hairline bg-paper px-1 text-sm"
            >
              <option value="position">Order of the book</option>
              {seen.map(([column, words]) => (
                <option key={column} value={column}>
                  {words}
                </option>
              ))}
            </select>
          </span>
        )}
        {(isTable ? seen : []).map(([column, words]) => {
          const isSorted = sort.by === column;
          const Arrow = sort.direction === "up" ? ArrowUp : ArrowDown;
          return (
            <span
              key={column}
              role="columnheader"
              aria-sort={isSorted ? (sort.direction === "up" ? "ascending" : "descending") : "none"}
            >
              <button
                type="button"
                className="inline-flex items-center gap-1 text-sm text-faint hover:text-blue"
                onClick={() =>
                  // A third press goes back to the order of the book.
                  onSort(
                    !isSorted
                      ? { by: column, direction: "up" }
                      : sort.direction === "up"
                        ? { by: column, direction: "down" }
                        : { by: "position", direction: "up" },
                  )
                }
              >
                {words}
                {isSorted && <Arrow aria-hidden size={13} />}
              </button>
            </span>
          );
        })}
        <span role="columnheader" className="text-right text-sm text-faint">
          {plural(total, "link")}
        </span>
      </div>
      {total === 0 &&
        (Object.values(filter).some(Boolean) ? (
          <p className="p-8">No link is like that.</p>
        ) : (
          <EmptyPage next="Make the first in Write" to={`/books/${bookId}/write?guide=first-link`}>
            All links of the book stand here in one table, to be searched, ordered, and changed many at once.
            There is none yet.
          </EmptyPage>
        ))}
      <div role="rowgroup" className="relative md:min-w-fit" style={{ height: virtual.getTotalSize() }}>
        {visible.map(({ index, start, key: itemKey }) => {
          const row = rows.get(index);
          const key = row ? rowKey(row) : null;
          const isChosen = isAllChosen || (key !== null && chosen.has(key));
          return (
            <div
              key={itemKey}
              // Only the row that is edited has a height of its own to be measured.
              ref={editing === key && key !== null ? virtual.measureElement : undefined}
              data-index={index}
              role="row"
              aria-rowindex={index + 2}
              aria-selected={isChosen}
              className={`absolute inset-x-0 border-b border-hairline px-3 ${isChosen ? "bg-blue-wash" : "hover:bg-desk/50"}`}
              style={{ transform: `translateY(${start}px)`, minHeight: height }}
            >
              {row && key ? (
                <>
                  {isTable ? (
                    <LedgerTableRow
                      bookId={bookId}
                      row={row}
                      index={index}
                      shown={shown}
                      template={template}
                      isChosen={isChosen}
                      isEdited={editing === key}
                      onChoose={chooseLatest}
                      onEdit={setEditing}
                    />
                  ) : (
                    <LedgerCard
                      bookId={bookId}
                      row={row}
                      index={index}
                      shown={shown}
                      isChosen={isChosen}
                      isEdited={editing === key}
                      onChoose={chooseLatest}
                      onEdit={setEditing}
                    />
                  )}
                  {editing === key && (
                    <div role="cell">
                      <RowEdit bookId={bookId} row={row} onDone={() => setEditing(null)} />
                    </div>
                  )}
                </>
              ) : (
                <span className="block py-1.5 text-faint">…</span>
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}
