import type { NodeType, ResolvedPos } from "prosemirror-model";
import { newId } from "@vennet/core/manuscript/ids";
import { schema } from "@vennet/core/manuscript/schema";
import { tellMadeAnchor } from "./made-anchor";
import { NodeSelection, TextSelection, type Command, type Selection } from "prosemirror-state";

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
export const insertSectionBreak = inserting("section_break");

/** Lets the text go on on the next page. */
export const insertPageBreak = inserting("page_break");

function inserting(name: "section_break" | "page_break"): Command {
  return (state, dispatch) => {
    if (!canHoldBlock(state.selection.$from)) return false;
    dispatch?.(state.tr.replaceSelectionWith(schema.node(name)).scrollIntoView());
    return true;
  };
}

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

/**
 * Puts an anchor before the selection, named by the selected words, and selects it so that its name can
 * be given at once.
 */
export const insertAnchor: Command = (state, dispatch) => {
  const { from, to, $from } = state.selection;
  if (!$from.parent.inlineContent || $from.parent.type.spec.code) return false;
  if (dispatch) {
    const name = state.doc.textBetween(from, to, " ").trim().slice(0, 100);
    const id = newId();
    const change = state.tr.insert(from, schema.node("anchor", { id, name }));
    tellMadeAnchor(change, id, state.selection);
    dispatch(change.setSelection(NodeSelection.create(change.doc, from)).scrollIntoView());
  }
  return true;
};

/**
 * Puts a caption after the picture or the table at the cursor, and goes into it. False where there is none,
 * or where it has one already.
 */
export const insertCaption: Command = (state, dispatch) => {
  const { $from, $to } = state.selection;
  let at: { position: number; of: "figure" | "table" } | null = null;
  for (let depth = $from.depth; depth > 0 && !at; depth--) {
    const node = $from.node(depth);
    if (node.type.name === "table") at = { position: $from.after(depth), of: "table" };
    else if (node.isTextblock && node.children.some((child) => child.type.name === "picture"))
      at = { position: $to.after(depth), of: "figure" };
  }
  if (!at || state.doc.nodeAt(at.position)?.type.name === "caption") return false;
  if (dispatch) {
    const change = state.tr.insert(at.position, schema.node("caption", { id: newId(), of: at.of }));
    dispatch(change.setSelection(TextSelection.create(change.doc, at.position + 1)).scrollIntoView());
  }
  return true;
};

/** Puts a signpost list where the cursor is: the contents of the chapter, until it is told otherwise. */
export function insertSignposts(heading: string): Command {
  return (state, dispatch) => {
    const { $from } = state.selection;
    if (!canHoldBlock($from) || noteAround($from)) return false;
    const list = schema.node("signposts", { id: newId(), of: "contents", scope: "chapter", heading });
    // Beside the paragraph at the cursor, so that no words are torn apart.
    const isEmpty = $from.parent.type.name === "paragraph" && $from.parent.content.size === 0;
    const at = isEmpty ? $from.before() : placeBehind(state.selection, list.type);
    if (at === null) return false;
    if (dispatch) {
      const change = isEmpty ? state.tr.replaceWith(at, $from.after(), list) : state.tr.insert(at, list);
      dispatch(change.setSelection(NodeSelection.create(change.doc, at)).scrollIntoView());
    }
    return true;
  };
}

/** Puts a stored picture at the cursor. */
export function insertPicture(file: string, source: string): Command {
  return (state, dispatch) => {
    if (dispatch) {
      const picture = schema.node("picture", { file, source, alt: "" });
      const change = state.tr.replaceSelectionWith(picture, false);
      // Selected, so that its text alternative is asked for at once.
      const at = change.selection.from - 1;
      if (change.doc.nodeAt(at)?.type === picture.type)
        change.setSelection(NodeSelection.create(change.doc, at));
      dispatch(change.scrollIntoView());
    }
    return true;
  };
}

/** Where a block of a type can stand next behind what is selected; null where it can nowhere. */
function placeBehind({ $from, $to }: Selection, type: NodeType): number | null {
  // A block that is selected as a whole is not around its own end.
  const innermost = $from.parent.isTextblock ? $from.depth - 1 : $from.depth;
  for (let depth = innermost; depth >= 0; depth--) {
    const index = depth === $from.depth ? $to.index(depth) : $from.indexAfter(depth);
    if ($from.node(depth).canReplaceWith(index, index, type)) return $from.posAtIndex(index, depth);
  }
  return null;
}

function canHoldBlock($from: ResolvedPos): boolean {
  return $from.depth >= 1 && $from.parent.type.name !== "title";
}

function noteAround($pos: ResolvedPos): boolean {
  for (let depth = $pos.depth; depth > 0; depth--) if ($pos.node(depth).type.name === "note") return true;
  return false;
}
