import { newId } from "@vennet/core/manuscript/ids";
import { schema } from "@vennet/core/manuscript/schema";
import { setBlockType } from "prosemirror-commands";
import type { Node, NodeType } from "prosemirror-model";
import { Plugin, PluginKey, type Command, type EditorState } from "prosemirror-state";
import { isLedTo } from "./book-numbers";

const { anchor, code_block, heading, paragraph } = schema.nodes;

/** The id that a block had as a heading or caption, which it gets back when it is one again. */
interface FormerId {
  /** Before the block. */
  at: number;
  id: string;
}

const key = new PluginKey<readonly FormerId[]>("former-ids");

/** Remembers which ids went when headings became paragraphs. */
export const formerIds = new Plugin<readonly FormerId[]>({
  key,
  state: {
    init: () => [],
    apply(transaction, known) {
      const more = (transaction.getMeta(key) as FormerId[] | undefined) ?? [];
      if (!transaction.docChanged) return known;
      const kept = known.flatMap(({ at, id }) => {
        const { pos, deletedAfter } = transaction.mapping.mapResult(at, 1);
        return deletedAfter ? [] : [{ at: pos, id }];
      });
      const again = new Set(more.map(({ at }) => at));
      return [...kept.filter(({ at }) => !again.has(at)), ...more];
    },
  },
});

/** Makes headings of the blocks at the selection. The id of each, by which links know it, stays with its words. */
export function makeHeading(level: number): Command {
  return (state, dispatch) => setKind(state, dispatch, heading!, { level });
}

/** Makes plain paragraphs of the blocks at the selection; where links lead to one, an anchor holds its place. */
export const makeParagraph: Command = (state, dispatch) => setKind(state, dispatch, paragraph!, {});

/** Makes listings of the blocks at the selection; not of those that hold what a listing cannot, or that links lead to. */
export const makeListing: Command = (state, dispatch) => setKind(state, dispatch, code_block!, {});

/** Goes one step down from paragraph over heading 1 to heading 4, or one step up again. */
export function stepHeading(step: 1 | -1): Command {
  return (state, dispatch) => {
    const { parent } = state.selection.$from;
    if (parent.type !== heading && parent.type !== paragraph) return false;
    const level = (parent.type === heading ? (parent.attrs["level"] as number) : 0) + step;
    if (level < 0 || level > 4) return false;
    return (level === 0 ? makeParagraph : makeHeading(level))(state, dispatch);
  };
}

function setKind(
  state: EditorState,
  dispatch: Parameters<Command>[1],
  type: NodeType,
  attrs: Record<string, unknown>,
): boolean {
  const withId = type === heading;
  if (!setBlockType(type, withId ? { ...attrs, id: "unset" } : attrs)(state)) return false;
  if (type === code_block && !blocksOf(state).every(({ node }) => fitsListing(state, node))) return false;
  if (!dispatch) return true;
  const change = state.tr;
  const left: FormerId[] = [];
  for (const { node, position } of blocksOf(state)) {
    const at = change.mapping.map(position, -1);
    const own = idOf(node);
    const id = own ?? formerIdOf(state, position);
    const kept = withId ? { ...attrs, id: id ?? newId() } : attrs;
    change.setBlockType(at + 1, at + node.nodeSize - 1, type, kept);
    if (withId && own === null && id !== null) {
      // What held the place of the heading meanwhile has done so.
      const first = change.doc.nodeAt(at + 1);
      if (first?.type === anchor && first.attrs["id"] === id) change.delete(at + 1, at + 2);
    }
    if (withId || own === null) continue;
    left.push({ at, id: own });
    if (isLedTo(state, own)) {
      const name = node.textContent.trim().slice(0, 100);
      change.insert(at + 1, anchor!.create({ id: own, name }));
    }
  }
  dispatch(change.setMeta(key, left).scrollIntoView());
  return true;
}

/** The blocks of words at the selection, but for the chapter's title. */
function blocksOf({ doc, selection }: EditorState): { node: Node; position: number }[] {
  const blocks: { node: Node; position: number }[] = [];
  for (const { $from, $to } of selection.ranges)
    doc.nodesBetween($from.pos, $to.pos, (node, position) => {
      if (node.isTextblock && node.type.name !== "title") blocks.push({ node, position });
      return !node.isTextblock;
    });
  return blocks;
}

/** Whether a listing, which is plain letters and links, can take all of a block. */
function fitsListing(state: EditorState, node: Node): boolean {
  const own = idOf(node);
  return node.children.every((child) => child.isText) && (own === null || !isLedTo(state, own));
}

function idOf(node: Node): string | null {
  return (node.attrs["id"] as string | undefined) ?? null;
}

function formerIdOf(state: EditorState, position: number): string | null {
  return key.getState(state)?.find(({ at }) => at === position)?.id ?? null;
}
