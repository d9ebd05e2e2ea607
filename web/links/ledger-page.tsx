import { useDeferredValue, useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { useBook } from "../book-page";
import { BulkEdit, type Chosen } from "./bulk-edit";
import { LedgerFilters } from "./ledger-filters";
import { LedgerGroups } from "./ledger-groups";
import { LedgerTable } from "./ledger-table";
import { columns, type Column, type Filter, type Sort } from "./ledger-view";
import { LinksFrame } from "./links-frame";

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
          <LedgerTable
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
