import { schema } from "@vennet/core/manuscript/schema";
import { baseKeymap, chainCommands, exitCode, toggleMark } from "prosemirror-commands";
import { pressUndo } from "../../frame/undo-keys";
import { keymap } from "prosemirror-keymap";
import { liftListItem, sinkListItem, splitListItem } from "prosemirror-schema-list";
import type { Command, Plugin } from "prosemirror-state";
import { addRowAfter, goToNextCell, isInTable } from "prosemirror-tables";
import { stepHeading } from "./block-kinds";
import { insertAnchor } from "./insert-commands";
import { enterSetApart, taskAt } from "./set-apart-commands";

const { list_item, hard_break } = schema.nodes;

const breakLine: Command = chainCommands(exitCode, (state, dispatch) => {
  dispatch?.(state.tr.replaceSelectionWith(hard_break!.create()).scrollIntoView());
  return true;
});

/** Takes back, or does again, the last thing that was done to the book, in this text or elsewhere. */
function turning(direction: "undo" | "redo"): Command {
  return (_, dispatch) => {
    if (dispatch) pressUndo(direction);
    return true;
  };
}

/** The next item of a list; behind a task comes one that is to do. */
const splitTask: Command = (state, dispatch) => {
  const done = taskAt(state);
  return splitListItem(list_item!, done === undefined || done === null ? {} : { done: false })(
    state,
    dispatch,
  );
};

/** Behind the last cell of a table comes a row more. */
const nextCell: Command = (state, dispatch, view) => {
  if (!isInTable(state) || goToNextCell(1)(state, dispatch)) return isInTable(state);
  addRowAfter(state, dispatch && ((change) => dispatch(change.scrollIntoView())));
  return dispatch === undefined || view === undefined || goToNextCell(1)(view.state, dispatch);
};

/** The keys of the text itself; those of the links are given by the page around it. */
export function editorKeys(): Plugin[] {
  const keys: Record<string, Command> = {
    "Mod-z": turning("undo"),
    "Mod-Shift-z": turning("redo"),
    "Mod-y": turning("redo"),
    "Mod-b": toggleMark(schema.marks.strong!),
    "Mod-i": toggleMark(schema.marks.emphasis!),
    "Mod-u": toggleMark(schema.marks.underline!),
    Enter: chainCommands(enterSetApart, splitTask),
    Tab: chainCommands(nextCell, sinkListItem(list_item!)),
    "Shift-Tab": chainCommands(goToNextCell(-1), liftListItem(list_item!)),
    "Shift-Enter": breakLine,
    "Alt-c": toggleMark(schema.marks.code!),
    "Alt-a": insertAnchor,
    "Alt-.": stepHeading(1),
    "Alt-,": stepHeading(-1),
  };
  return [keymap(keys), keymap(baseKeymap)];
}
