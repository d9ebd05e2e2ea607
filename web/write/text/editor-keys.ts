import { schema } from "@vennet/core/manuscript/schema";
import { baseKeymap, chainCommands, exitCode, setBlockType, toggleMark } from "prosemirror-commands";
import { redo, undo } from "prosemirror-history";
import { keymap } from "prosemirror-keymap";
import { liftListItem, sinkListItem, splitListItem } from "prosemirror-schema-list";
import type { Command, Plugin } from "prosemirror-state";
import { goToNextCell } from "prosemirror-tables";
import { insertAnchor } from "./insert-commands";
import { newId } from "@vennet/core/manuscript/ids";

const { list_item, heading, paragraph, hard_break } = schema.nodes;

/** Turns the block at the cursor into a heading. */
export function makeHeading(level: number): Command {
  return (state, dispatch) => setBlockType(heading!, { id: newId(), level })(state, dispatch);
}

/** Goes one step down from paragraph over heading 1 to heading 4, or one step up again. */
function stepHeading(step: 1 | -1): Command {
  return (state, dispatch) => {
    const { parent } = state.selection.$from;
    if (parent.type !== heading && parent.type !== paragraph) return false;
    const level = (parent.type === heading ? (parent.attrs["level"] as number) : 0) + step;
    if (level < 0 || level > 4) return false;
    return (level === 0 ? setBlockType(paragraph!) : makeHeading(level))(state, dispatch);
  };
}

const breakLine: Command = chainCommands(exitCode, (state, dispatch) => {
  dispatch?.(state.tr.replaceSelectionWith(hard_break!.create()).scrollIntoView());
  return true;
});

/** The keys of the text itself; those of the links are given by the page around it. */
export function editorKeys(): Plugin[] {
  const keys: Record<string, Command> = {
    "Mod-z": undo,
    "Mod-Shift-z": redo,
    "Mod-y": redo,
    "Mod-b": toggleMark(schema.marks.strong!),
    "Mod-i": toggleMark(schema.marks.emphasis!),
    Enter: splitListItem(list_item!),
    Tab: chainCommands(goToNextCell(1), sinkListItem(list_item!)),
    "Shift-Tab": chainCommands(goToNextCell(-1), liftListItem(list_item!)),
    "Shift-Enter": breakLine,
    "Alt-c": toggleMark(schema.marks.code!),
    "Alt-a": insertAnchor,
    "Alt-.": stepHeading(1),
    "Alt-,": stepHeading(-1),
  };
  return [keymap(keys), keymap(baseKeymap)];
}
