import { schema } from "@vennet/core/manuscript/schema";
import { baseKeymap, chainCommands, exitCode, toggleMark } from "prosemirror-commands";
import { redo, undo } from "prosemirror-history";
import { keymap } from "prosemirror-keymap";
import { liftListItem, sinkListItem, splitListItem } from "prosemirror-schema-list";
import type { Command, Plugin } from "prosemirror-state";
import { goToNextCell } from "prosemirror-tables";
import { stepHeading } from "./block-kinds";
import { insertAnchor } from "./insert-commands";

const { list_item, hard_break } = schema.nodes;

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
