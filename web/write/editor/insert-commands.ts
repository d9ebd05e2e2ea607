import type { ResolvedPos } from "prosemirror-model";
import { newId } from "@vennet/core/manuscript/ids";
import { schema } from "@vennet/core/manuscript/schema";
import { TextSelection, type Command } from "prosemirror-state";

/** Puts a table of three columns with a head row where the cursor is. */
export const insertTable: Command = (state, dispatch) => {
  const cells = (type: "table_cell" | "table_header") =>
    Array.from({ length: 3 }, () => schema.nodes[type]!.createAndFill()!);
  const rows = [cells("table_header"), cells("table_cell"), cells("table_cell")];
  const table = schema.node(
    "table",
    null,
    rows.map((row) => schema.node("table_row", null, row)),
  );
  if (!canHoldBlock(state.selection.$from)) return false;
  dispatch?.(state.tr.replaceSelectionWith(table).scrollIntoView());
  return true;
};

/** Puts a line between two sections of the text. */
export const insertSectionBreak: Command = (state, dispatch) => {
  if (!canHoldBlock(state.selection.$from)) return false;
  dispatch?.(state.tr.replaceSelectionWith(schema.node("section_break")).scrollIntoView());
  return true;
};

/** Puts a note's number at the cursor, and its empty note at the chapter's end, and goes there. */
export const insertNote: Command = (state, dispatch) => {
  const { $to } = state.selection;
  if (!$to.parent.inlineContent || $to.parent.type.spec.code || noteAround($to)) return false;
  if (dispatch) {
    const id = newId();
    const change = state.tr.insert($to.pos, schema.node("note_reference", { note: id }));
    const end = change.doc.content.size;
    change.insert(end, schema.node("note", { id }, [schema.node("paragraph")]));
    dispatch(change.setSelection(TextSelection.near(change.doc.resolve(end + 1))).scrollIntoView());
  }
  return true;
};

/** Puts a stored picture at the cursor. */
export function insertPicture(file: string, source: string): Command {
  return (state, dispatch) => {
    const picture = schema.node("picture", { file, source, alt: "" });
    dispatch?.(state.tr.replaceSelectionWith(picture, false).scrollIntoView());
    return true;
  };
}

function canHoldBlock($from: ResolvedPos): boolean {
  return $from.depth >= 1 && $from.parent.type.name !== "title";
}

function noteAround($pos: ResolvedPos): boolean {
  for (let depth = $pos.depth; depth > 0; depth--) if ($pos.node(depth).type.name === "note") return true;
  return false;
}
