import { useQuery } from "@tanstack/react-query";
import { kindNames } from "@vennet/core/destination/kinds/kinds";
import { DropdownMenu } from "radix-ui";
import { useState, type ReactNode } from "react";
import { chaptersOf } from "../api/chapters-of";
import { useKindWord } from "../destinations/kind-mark";
import { Button } from "../parts/button";
import { linkStates, stateWord } from "../parts/state-mark";
import { useRoomFor } from "../parts/use-window";
import type { Column, Filter } from "./ledger-view";
import { useColumns, usePartWord } from "./use-columns";

/** What narrows the ledger, and how it is shown. */
export function LedgerFilters({
  bookId,
  filter,
  onFilter,
  isGrouped,
  onGroup,
  shown,
  onShow,
  csv,
}: {
  bookId: string;
  filter: Filter;
  onFilter: (filter: Filter) => void;
  isGrouped: boolean;
  onGroup: (grouped: boolean) => void;
  shown: ReadonlySet<Column>;
  onShow: (shown: ReadonlySet<Column>) => void;
  csv: string;
}) {
  const columns = useColumns();
  const part = usePartWord();
  const wordOf = useKindWord();
  const isWide = useRoomFor("table");
  const [isUnfolded, setUnfolded] = useState(false);
  const narrowing = Object.keys(filter).filter((key) => key !== "search").length;
  const chapters = useQuery(chaptersOf(bookId));
  const set = (key: keyof Filter, value: string): void => {
    const next: Record<string, unknown> = { ...filter, [key]: value };
    if (value === "") delete next[key];
    onFilter(next as Filter);
  };
  const select = (label: string, key: keyof Filter, options: (readonly [string, string])[]): ReactNode => (
    <select
      aria-label={label}
      value={filter[key] ?? ""}
      onChange={(event) => set(key, event.target.value)}
      className="min-h-8 max-w-44 border border-hairline bg-paper px-1"
    >
      <option value="">{label}: any</option>
      {options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </select>
  );
  return (
    <div
      role="search"
      aria-label="Links"
      className="flex flex-wrap items-center gap-2 border-b border-hairline bg-paper px-3 py-2"
    >
      <input
        type="search"
        aria-label="Search the links"
        placeholder="Search words, destinations, headings"
        value={filter.search ?? ""}
        onChange={(event) => set("search", event.target.value)}
        className="min-h-8 w-72 min-w-0 border border-edge bg-transparent px-2 placeholder:text-faint max-md:w-40 max-md:grow"
      />
      {!isWide && (
        <Button aria-expanded={isUnfolded} onClick={() => setUnfolded(!isUnfolded)}>
          Filters{narrowing > 0 && ` (${narrowing})`}
        </Button>
      )}
      {(isWide || isUnfolded) && (
        <>
          {select(
            "Kind",
            "kind",
            kindNames.map((kind) => [kind, wordOf(kind)] as const),
          )}
          {select(
            "State",
            "state",
            linkStates.map((state) => [state, stateWord(state)] as const),
          )}
          {select(
            part === "page" ? "Page" : "Chapter",
            "chapter",
            (chapters.data ?? []).map(({ id, title }) => [id, title || "Untitled"] as const),
          )}
          {select("Description", "described", [
            ["yes", "with one"],
            ["no", "without"],
          ])}
          {filter.destination !== undefined && (
            <Button kind="quiet" onClick={() => set("destination", "")}>
              Only one destination: show all again
            </Button>
          )}
          <span className="ml-auto flex flex-wrap items-center gap-3">
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="size-4 accent-blue"
                checked={isGrouped}
                onChange={(event) => onGroup(event.target.checked)}
              />
              By destination
            </label>
            <DropdownMenu.Root>
              <DropdownMenu.Trigger asChild>
                <Button>Columns</Button>
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content align="end" className="z-50 border border-ink bg-paper p-1 shadow-md">
                  {columns.map(([column, words]) => (
                    <DropdownMenu.CheckboxItem
                      key={column}
                      checked={shown.has(column)}
                      disabled={shown.has(column) && shown.size === 1}
                      onSelect={(event) => event.preventDefault()}
                      onCheckedChange={(on) => {
                        const next = new Set(shown);
                        if (on) next.add(column);
                        else next.delete(column);
                        onShow(next);
                      }}
                      className="flex cursor-pointer items-center gap-2 px-2 py-1 outline-none data-[highlighted]:bg-blue-wash"
                    >
                      <span aria-hidden className="inline-block w-4">
                        {shown.has(column) ? "✓" : ""}
                      </span>
                      {words}
                    </DropdownMenu.CheckboxItem>
                  ))}
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
            <a href={csv} download className="underline decoration-edge underline-offset-4 hover:text-blue">
              CSV
            </a>
          </span>
        </>
      )}
    </div>
  );
}
