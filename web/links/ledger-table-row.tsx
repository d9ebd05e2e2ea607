import { memo } from "react";
import { Link } from "react-router";
import type { LedgerRow } from "../api/client";
import { KindMark } from "../destinations/kind-mark";
import { StateMark } from "../parts/state-mark";
import { shownDate, shownDay } from "../parts/wording";
import { columns, rowKey, type Column } from "./ledger-view";

/** One link in the table; it is drawn anew only when something about it has changed, since scrolling draws many. */
export const LedgerTableRow = memo(function LedgerTableRow({
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
