import { setOffKinds, type SetOff } from "@vennet/core/manuscript/set-off";
import { Check } from "lucide-react";
import type { Command, EditorState } from "prosemirror-state";
import {
  addColumnAfter,
  addRowAfter,
  deleteColumn,
  deleteRow,
  deleteTable,
  isInTable,
} from "prosemirror-tables";
import { Button } from "../../parts/button";
import { setOffAs, setOffAt, setOffNoMore, setTask, taskAt } from "./set-apart-commands";

/** What each kind of block that is set off is called. */
const setOffNames: Readonly<Record<SetOff, string>> = {
  quotation: "Quotation",
  verse: "Verse",
  epigraph: "Epigraph",
  notice: "Notice",
};

interface ToolHere {
  label: string;
  command: Command;
  /** Whether it is so already; undefined for what is done and not chosen. */
  isSo?: boolean;
}

/** The tools for what is around the cursor: a table, what is set off, a list. */
export function ToolsHere({ state, run }: { state: EditorState; run: (command: Command) => void }) {
  const kind = setOffAt(state);
  const done = taskAt(state);
  return (
    <>
      {isInTable(state) && (
        <Row
          label="Table tools"
          run={run}
          tools={[
            { label: "Row below", command: addRowAfter },
            { label: "Column after", command: addColumnAfter },
            { label: "Delete row", command: deleteRow },
            { label: "Delete column", command: deleteColumn },
            { label: "Delete table", command: deleteTable },
          ]}
        />
      )}
      {kind !== null && (
        <Row
          label="Set off as"
          run={run}
          tools={[
            ...setOffKinds.map((one) => ({
              label: setOffNames[one],
              command: setOffAs(one),
              isSo: one === kind,
            })),
            { label: "Plain", command: setOffNoMore },
          ]}
        />
      )}
      {done !== undefined && (
        <Row
          label="This item is"
          run={run}
          tools={[
            { label: "No task", command: setTask(null), isSo: done === null },
            { label: "To do", command: setTask(false), isSo: done === false },
            { label: "Done", command: setTask(true), isSo: done === true },
          ]}
        />
      )}
    </>
  );
}

function Row({
  label,
  tools,
  run,
}: {
  label: string;
  tools: readonly ToolHere[];
  run: (command: Command) => void;
}) {
  return (
    <div
      role="group"
      aria-label={label}
      className="flex items-center gap-x-3 overflow-x-auto border-t border-hairline px-3 py-0.5 text-sm whitespace-nowrap"
    >
      <span aria-hidden className="text-faint">
        {label}
      </span>
      {tools.map(({ label: name, command, isSo }) => (
        <Button
          key={name}
          kind="quiet"
          className="aria-pressed:bg-blue-wash aria-pressed:font-semibold"
          aria-pressed={isSo}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => run(command)}
        >
          {isSo === true && <Check aria-hidden size={13} />}
          {name}
        </Button>
      ))}
    </div>
  );
}
