import { schema } from "@vennet/core/manuscript/schema";
import type { SetOff } from "@vennet/core/manuscript/set-off";
import { chainCommands, lift, wrapIn } from "prosemirror-commands";
import type { Node, NodeType, ResolvedPos } from "prosemirror-model";
import { wrapInList } from "prosemirror-schema-list";
import {
  Selection,
  TextSelection,
  type Command,
  type EditorState,
  type Transaction,
} from "prosemirror-state";

const {
  blockquote,
  bullet_list,
  credit,
  definition,
  definition_list,
  definition_term,
  list_item,
  paragraph,
} = schema.nodes;

/** A node around a position, with where it stands; null where there is none of its type. */
function around($at: ResolvedPos, ...types: (NodeType | undefined)[]): { node: Node; at: number } | null {
  for (let depth = $at.depth; depth > 0; depth--)
    if (types.includes($at.node(depth).type)) return { node: $at.node(depth), at: $at.before(depth) };
  return null;
}

/** As what the block at the cursor is set off; null where it is not. */
export function setOffAt({ selection: { $from } }: EditorState): SetOff | null {
  return (around($from, blockquote)?.node.attrs["kind"] as SetOff | undefined) ?? null;
}

/** Sets the blocks at the selection off as one of the kinds; what is set off already becomes of that kind. */
export function setOffAs(kind: SetOff): Command {
  return (state, dispatch) => {
    const known = around(state.selection.$from, blockquote);
    if (!known) return wrapIn(blockquote!, { kind })(state, dispatch);
    dispatch?.(state.tr.setNodeAttribute(known.at, "kind", kind));
    return true;
  };
}

/** Takes the blocks at the selection out of what sets them off. */
export const setOffNoMore: Command = (state, dispatch) =>
  around(state.selection.$from, blockquote) !== null && lift(state, dispatch);

/** Whether the item at the cursor is done: null for one that is no task, undefined outside of lists. */
export function taskAt({ selection: { $from } }: EditorState): boolean | null | undefined {
  const item = around($from, list_item);
  return item ? (item.node.attrs["done"] as boolean | null) : undefined;
}

/** Makes tasks of the items at the selection, done or to do, or items again. */
export function setTask(done: boolean | null): Command {
  return (state, dispatch) => {
    const items = itemsAt(state);
    if (items.length === 0) return false;
    dispatch?.(items.reduce((change, at) => change.setNodeAttribute(at, "done", done), state.tr));
    return true;
  };
}

/** Makes a list of tasks of the blocks at the selection. */
export const makeTasks: Command = (state, dispatch) => {
  if (taskAt(state) !== undefined) return setTask(taskAt(state) === null ? false : null)(state, dispatch);
  return wrapInList(bullet_list!)(
    state,
    dispatch &&
      ((change) => {
        for (const at of itemsAt({ doc: change.doc, selection: change.selection }))
          change.setNodeAttribute(at, "done", false);
        dispatch(change);
      }),
  );
};

/** The items in whose own lines the selection lies. */
function itemsAt({ doc, selection: { $from, $to } }: Pick<EditorState, "doc" | "selection">): number[] {
  const found = new Set<number>();
  doc.nodesBetween($from.pos, $to.pos, (node, position) => {
    if (!node.isTextblock) return true;
    const item = around(doc.resolve(position + 1), list_item);
    if (item) found.add(item.at);
    return false;
  });
  return [...found];
}

/** How the paragraphs at the selection are aligned; null where they are not alike or as usual. */
export function alignAt(state: EditorState): "center" | "end" | null {
  const all = new Set(paragraphsAt(state).map(({ node }) => node.attrs["align"] as "center" | "end" | null));
  return all.size === 1 ? [...all][0]! : null;
}

/** Aligns the paragraphs at the selection, or takes that from them where all have it. */
export function align(side: "center" | "end"): Command {
  return (state, dispatch) => {
    const all = paragraphsAt(state);
    if (all.length === 0) return false;
    const wanted = alignAt(state) === side ? null : side;
    dispatch?.(all.reduce((change, { at }) => change.setNodeAttribute(at, "align", wanted), state.tr));
    return true;
  };
}

function paragraphsAt({ doc, selection: { from, to } }: EditorState): { node: Node; at: number }[] {
  const found: { node: Node; at: number }[] = [];
  doc.nodesBetween(from, to, (node, at) => {
    if (node.type === paragraph) found.push({ node, at });
    return !node.isTextblock;
  });
  return found;
}

/** Makes the paragraph at the cursor a term with room for what it means, and goes there. */
export const insertDefinitions: Command = (state, dispatch) => {
  const { $from } = state.selection;
  const { parent } = $from;
  const list = $from.node(-1);
  if (parent.type !== paragraph || !list.type.validContent(list.content)) return false;
  const index = $from.index(-1);
  const made = definition_list!.create(null, [
    definition_term!.create(null, parent.content),
    definition!.create(null, paragraph!.create()),
  ]);
  if (!list.canReplaceWith(index, index + 1, definition_list!)) return false;
  if (dispatch) {
    const at = $from.before();
    const change = state.tr.replaceWith(at, $from.after(), made);
    // An empty term is written first.
    const into = parent.content.size === 0 ? at + 2 : at + 1 + made.firstChild!.nodeSize + 2;
    dispatch(change.setSelection(TextSelection.create(change.doc, into)).scrollIntoView());
  }
  return true;
};

/** Enter at the end of a term goes to what it means; on an empty line of a meaning, to the next term, and then out. */
export const enterInDefinitions: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if (!empty) return false;
  const inTerm = $from.parent.type === definition_term;
  const meaning = $from.depth > 1 ? $from.node(-1) : null;
  const isEmptyLine =
    meaning?.type === definition &&
    $from.parent.content.size === 0 &&
    $from.index(-1) === meaning.childCount - 1;
  if (inTerm && $from.parent.content.size === 0) return leaveDefinitions($from, $from.depth)(state, dispatch);
  if (inTerm && $from.parentOffset === $from.parent.content.size) return goToMeaning($from)(state, dispatch);
  if (!isEmptyLine) return false;
  if (meaning.childCount === 1) return leaveDefinitions($from, $from.depth - 1)(state, dispatch);
  return nextTerm($from)(state, dispatch);
};

function goToMeaning($from: ResolvedPos): Command {
  return (state, dispatch) => {
    const after = $from.after();
    const next = state.doc.nodeAt(after);
    const change = state.tr;
    if (next?.type !== definition) change.insert(after, definition!.create(null, paragraph!.create()));
    put(change, after + 1, dispatch);
    return true;
  };
}

/** Makes a term of the empty line behind its meaning. */
function nextTerm($from: ResolvedPos): Command {
  return (state, dispatch) => {
    const change = state.tr.delete($from.before(), $from.after());
    const at = change.mapping.map($from.after(-1));
    change.insert(at, definition_term!.create());
    put(change, at, dispatch);
    return true;
  };
}

/** Takes an empty part off the end of a list of definitions, and goes on behind it. */
function leaveDefinitions($from: ResolvedPos, depth: number): Command {
  return (state, dispatch) => {
    const list = $from.node(depth - 1);
    if ($from.index(depth - 1) !== list.childCount - 1) return false;
    const isAlone = list.childCount === 1;
    const [from, to] = isAlone
      ? [$from.before(depth - 1), $from.after(depth - 1)]
      : [$from.before(depth), $from.after(depth)];
    const change = state.tr.delete(from, to);
    const at = isAlone ? from : change.mapping.map($from.after(depth - 1));
    change.insert(at, paragraph!.create());
    put(change, at, dispatch);
    return true;
  };
}

function put(change: Transaction, at: number, dispatch: Parameters<Command>[1]): void {
  dispatch?.(change.setSelection(Selection.near(change.doc.resolve(at + 1))).scrollIntoView());
}

/** Puts a line behind the picture or table at the cursor, and its caption, that says to whom it belongs. */
export const insertCredit: Command = (state, dispatch) => {
  const { $from } = state.selection;
  for (let depth = $from.depth; depth > 0; depth--) {
    const node = $from.node(depth);
    const shows =
      node.type.name === "table" ||
      node.type.name === "caption" ||
      (node.isTextblock && node.children.some((child) => child.type.name === "picture"));
    if (!shows) continue;
    let at = $from.after(depth);
    const next = state.doc.nodeAt(at);
    if (next?.type.name === "caption") at += next.nodeSize;
    const container = state.doc.resolve(at);
    const index = container.index();
    if (state.doc.nodeAt(at)?.type === credit || !container.parent.canReplaceWith(index, index, credit!))
      return false;
    if (dispatch) put(state.tr.insert(at, credit!.create()), at, dispatch);
    return true;
  }
  return false;
};

/** Enter at the end of a credit or caption goes on in a paragraph. */
export const enterBehindCredit: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if (!empty || $from.parent.type !== credit || $from.parentOffset < $from.parent.content.size) return false;
  const at = $from.after();
  if (dispatch) put(state.tr.insert(at, paragraph!.create()), at, dispatch);
  return true;
};

/** What Enter does where it does more than to begin a paragraph. */
export const enterSetApart = chainCommands(enterInDefinitions, enterBehindCredit);
