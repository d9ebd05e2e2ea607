import { Fragment, memo, type ReactNode } from "react";
import { Link } from "react-router";
import type { LedgerRow } from "../api/client";
import { KindMark } from "../destinations/kind-mark";
import { StateMark } from "../parts/state-mark";
import { shownDate, shownDay } from "../parts/wording";
import { columns, rowKey, type Column } from "./ledger-view";

interface LedgerRowProps {
  bookId: string;
  row: LedgerRow;
  index: number;
  shown: ReadonlySet<Column>;
  isChosen: boolean;
  isEdited: boolean;
  onChoose: (index: number, row: LedgerRow, range: boolean) => void;
  onEdit: (key: string | null) => void;
}

/** One link in the table; it is drawn anew only when something about it has changed, since scrolling draws many. */
export const LedgerTableRow = memo(function LedgerTableRow({
  template,
  ...link
}: LedgerRowProps & { template: string }) {
  const { row, shown } = link;
  return (
    <div className="grid items-center gap-x-2 py-1.5 text-[0.9rem]" style={{ gridTemplateColumns: template }}>
      <span role="cell">
        <Choose {...link} />
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
        <Ways {...link} />
      </span>
    </div>
  );
});

const aboveOthers: ReadonlySet<Column> = new Set<Column>(["text", "kind", "destination", "state"]);

/** The same where a window has no room for columns: a card of three lines. */
export const LedgerCard = memo(function LedgerCard(link: LedgerRowProps) {
  const { row, shown } = link;
  const cell = (column: Column, className = ""): ReactNode =>
    shown.has(column) && (
      <span role="cell" className={`min-w-0 truncate [&>*]:align-middle ${className}`}>
        <Cell row={row} column={column} />
      </span>
    );
  return (
    <div className="grid grid-cols-[2rem_minmax(0,1fr)] gap-x-2 py-2 text-[0.9rem]">
      <span role="cell">
        <Choose {...link} />
      </span>
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-0.5">
        <div className="flex items-baseline justify-between gap-3">
          {cell("text", "text-[1rem]")}
          <span role="cell" className="flex shrink-0 gap-3">
            <Ways {...link} />
          </span>
        </div>
        <div className="flex items-baseline gap-3">
          {cell("kind", "shrink-0")}
          {cell("destination", "grow")}
          {row.state !== "unchecked" || row.kind === "web" ? cell("state", "shrink-0") : null}
        </div>
        <div className="flex gap-3 text-faint">
          {columns.map(([column]) => (
            <Fragment key={column}>
              {!aboveOthers.has(column) &&
                (column === "checked" ? row.checkedAt : row[column]) &&
                cell(column)}
            </Fragment>
          ))}
        </div>
      </div>
    </div>
  );
});

function Choose({
  row,
  index,
  isChosen,
  onChoose,
}: Pick<LedgerRowProps, "row" | "index" | "isChosen" | "onChoose">) {
  return (
    <input
      type="checkbox"
      aria-label={`Choose “${row.text}”`}
      className="block size-4 accent-blue"
      checked={isChosen}
      onClick={(event) => onChoose(index, row, event.shiftKey)}
      onChange={() => undefined}
    />
  );
}

function Ways({
  bookId,
  row,
  isEdited,
  onEdit,
}: Pick<LedgerRowProps, "bookId" | "row" | "isEdited" | "onEdit">) {
  return (
    <>
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
    </>
  );
}

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
