import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { answerOf, api, type LedgerRow } from "../api/client";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { StateMark } from "../parts/state-mark";
import { plural, shownDate, shownDay } from "../parts/wording";
import { KindMark } from "../write/links/kind-mark";
import { BulkEdit, type Chosen } from "./bulk-edit";
import { LedgerFilters } from "./ledger-filters";
import { LedgerGroups } from "./ledger-groups";
import { columns, rowKey, rowsAtOnce, type Column, type Filter, type Sort } from "./ledger-view";
import { LinksFrame } from "./links-frame";
import { RowEdit } from "./row-edit";

const rowHeight = 34;

/** All links of the book in one table. */
export function LedgerPage() {
  const book = useBook();
  const [search] = useSearchParams();
  const [filter, setFilter] = useState<Filter>(() => {
    const destination = search.get("destination");
    const words = search.get("search");
    return { ...(destination === null ? {} : { destination }), ...(words === null ? {} : { search: words }) };
  });
  const [sort, setSort] = useState<{ by: Sort; direction: "up" | "down" }>({
    by: "position",
    direction: "up",
  });
  const [shown, setShown] = useState<ReadonlySet<Column>>(() => new Set(columns.map(([column]) => column)));
  const [isGrouped, setGrouped] = useState(false);
  /** The rows chosen one by one, or everything that the filter matches. */
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [isAllChosen, setAllChosen] = useState(false);
  const asked = useDeferredValue(filter);

  const changeFilter = (next: Filter): void => {
    setFilter(next);
    setChosen(new Set());
    setAllChosen(false);
  };
  const csv = new URLSearchParams({
    ...(asked as Record<string, string>),
    sort: sort.by,
    direction: sort.direction,
    columns: columns
      .filter(([column]) => shown.has(column))
      .map(([column]) => column)
      .join(),
  });
  const selection = useMemo(
    (): Chosen | null =>
      isAllChosen
        ? { matching: asked }
        : chosen.size > 0
          ? {
              links: [...chosen].map((key) => {
                const [chapterId, linkId] = key.split(" ");
                return { chapterId: chapterId!, linkId: linkId! };
              }),
            }
          : null,
    [isAllChosen, asked, chosen],
  );
  return (
    <LinksFrame>
      <div className="flex h-full flex-col">
        <h1 className="sr-only">All links</h1>
        <LedgerFilters
          bookId={book.id}
          filter={filter}
          onFilter={changeFilter}
          isGrouped={isGrouped}
          onGroup={setGrouped}
          shown={shown}
          onShow={setShown}
          csv={`/api/books/${book.id}/links.csv?${csv}`}
        />
        {selection && (
          <BulkEdit
            bookId={book.id}
            chosen={selection}
            onDone={() => {
              setChosen(new Set());
              setAllChosen(false);
            }}
          />
        )}
        {isGrouped ? (
          <LedgerGroups
            bookId={book.id}
            filter={asked}
            onOpen={(destination) => {
              changeFilter({ ...filter, destination });
              setGrouped(false);
            }}
          />
        ) : (
          <Table
            bookId={book.id}
            filter={asked}
            sort={sort}
            onSort={setSort}
            shown={shown}
            chosen={chosen}
            isAllChosen={isAllChosen}
            onChoose={(next) => {
              setChosen(next);
              setAllChosen(false);
            }}
            onChooseAll={(all) => {
              setAllChosen(all);
              setChosen(new Set());
            }}
          />
        )}
      </div>
    </LinksFrame>
  );
}

function Table({
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
  const scroller = useRef<HTMLDivElement>(null);
  const [editing, setEditing] = useState<string | null>(null);
  /** The row that the last choice was made at, for choosing a range with Shift. */
  const lastChosen = useRef<number | null>(null);
  const page = (offset: number) => ({
    queryKey: ["ledger", bookId, filter, sort, offset],
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
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const visible = virtual.getVirtualItems();
  const pages = [...new Set(visible.map(({ index }) => Math.floor(index / rowsAtOnce)))];
  const fetched = useQueries({ queries: pages.map((n) => page(n * rowsAtOnce)) });
  const rows = new Map<number, LedgerRow>();
  fetched.forEach(({ data }, i) => data?.rows.forEach((row, j) => rows.set(pages[i]! * rowsAtOnce + j, row)));
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
  if (first.error)
    return (
      <div className="p-5">
        <Problem action={<Button onClick={() => void first.refetch()}>Try again</Button>}>
          {first.error.message}
        </Problem>
      </div>
    );
  if (first.isPending) return <Waiting what="Reading the links" />;
  const seen = columns.filter(([column]) => shown.has(column));
  const template = `2rem ${seen.map(([, , width]) => width).join(" ")} 5.5rem`;
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
        className="sticky top-0 z-10 grid min-w-fit items-center gap-x-2 border-b border-edge bg-paper px-3 py-1"
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
        {seen.map(([column, words]) => {
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
      {total === 0 && (
        <p className="p-8">
          {Object.values(filter).some(Boolean)
            ? "No link is like that."
            : "The book has no link yet. Select words in Write and press Ctrl or Cmd K."}
        </p>
      )}
      <div role="rowgroup" className="relative min-w-fit" style={{ height: virtual.getTotalSize() }}>
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
              style={{ transform: `translateY(${start}px)`, minHeight: rowHeight }}
            >
              {row && key ? (
                <>
                  <Row
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

/** One row; it is drawn anew only when something about it has changed, since scrolling draws many. */
const Row = memo(function Row({
  bookId,
  row,
  index,
  shown,
  template,
  isChosen,
  isEdited,
  onChoose,
  onEdit,
}: {
  bookId: string;
  row: LedgerRow;
  index: number;
  shown: ReadonlySet<Column>;
  template: string;
  isChosen: boolean;
  isEdited: boolean;
  onChoose: (index: number, row: LedgerRow, range: boolean) => void;
  onEdit: (key: string | null) => void;
}) {
  return (
    <div className="grid items-center gap-x-2 py-1.5 text-[0.9rem]" style={{ gridTemplateColumns: template }}>
      <span role="cell">
        <input
          type="checkbox"
          aria-label={`Choose “${row.text}”`}
          className="block size-4 accent-blue"
          checked={isChosen}
          onClick={(event) => onChoose(index, row, event.shiftKey)}
          onChange={() => undefined}
        />
      </span>
      {columns.map(
        ([column]) =>
          shown.has(column) && (
            <span key={column} role="cell" className="min-w-0 truncate [&>*]:align-middle">
              <Cell row={row} column={column} />
            </span>
          ),
      )}
      <span role="cell" className="flex justify-end gap-2">
        <Link
          to={`/books/${bookId}/write/${row.chapterId}?link=${row.linkId}`}
          aria-label={`Go to “${row.text}” in the text`}
          className="underline decoration-edge underline-offset-4 hover:text-blue"
        >
          Go to
        </Link>
        <button
          type="button"
          aria-expanded={isEdited}
          aria-label={`Edit “${row.text}”`}
          onClick={() => onEdit(isEdited ? null : rowKey(row))}
          className="underline decoration-edge underline-offset-4 hover:text-blue"
        >
          Edit
        </button>
      </span>
    </div>
  );
});

function Cell({ row, column }: { row: LedgerRow; column: Column }) {
  switch (column) {
    case "text":
      return row.text ? (
        <span className="font-serif" title={row.text}>
          {row.text}
        </span>
      ) : (
        <span className="text-red">no words</span>
      );
    case "kind":
      return <KindMark kind={row.kind} />;
    case "destination":
      return (
        <span className="font-mono text-[0.82rem]" title={row.destinationName}>
          {row.destinationName.replace(/^https:\/\//, "")}
        </span>
      );
    case "state":
      return row.kind === "web" || row.state !== "unchecked" ? (
        <StateMark state={row.state} />
      ) : (
        <span className="text-faint">–</span>
      );
    case "checked":
      return (
        <span className="text-faint" title={row.checkedAt ? shownDate(row.checkedAt) : ""}>
          {row.checkedAt ? shownDay(row.checkedAt) : "–"}
        </span>
      );
    default:
      return <span title={row[column] ?? ""}>{row[column]}</span>;
  }
}
