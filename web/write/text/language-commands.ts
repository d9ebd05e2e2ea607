import { languageOf } from "@vennet/core/manuscript/language";
import { schema } from "@vennet/core/manuscript/schema";
import { Fragment, Slice, type Node } from "prosemirror-model";
import type { Command, EditorState } from "prosemirror-state";

const type = schema.marks.language!;

/** The words that a language is given to: those selected, or all around the cursor that have one; null where there are none. */
export function wordsInLanguage(state: EditorState): { from: number; to: number; tag: string | null } | null {
  const { from, to, empty, $from } = state.selection;
  if (!empty) {
    let tag: string | null = null;
    let canHave = false;
    state.doc.nodesBetween(from, to, (node, _position, parent) => {
      if (!node.isText || !parent?.type.allowsMarkType(type)) return;
      canHave = true;
      tag ??= languageOf(node);
    });
    return canHave ? { from, to, tag } : null;
  }
  const { parent } = $from;
  const at = $from.parentOffset;
  let start = -1;
  let tag: string | null = null;
  let run: { from: number; to: number; tag: string } | null = null;
  parent.forEach((node, offset) => {
    const own = node.isText ? languageOf(node) : null;
    if (own === null || own !== tag) start = offset;
    tag = own;
    if (own !== null && start <= at && at <= offset + node.nodeSize)
      run = { from: $from.start() + start, to: $from.start() + offset + node.nodeSize, tag: own };
  });
  return run;
}

/** Says in which language words are; null takes back what was said. */
export function markLanguage(tag: string | null): Command {
  return (state, dispatch) => {
    const words = wordsInLanguage(state);
    if (!words) return false;
    const change = state.tr.removeMark(words.from, words.to, type);
    dispatch?.(tag === null ? change : change.addMark(words.from, words.to, type.create({ tag })));
    return true;
  };
}

/** What is pasted, without what other programs say of all words: that they are in the language that the book is in. */
export function withoutOwnLanguage({ content, openStart, openEnd }: Slice, book: string): Slice {
  const [own] = book.split("-");
  const cleaned = (fragment: Fragment): Fragment => {
    const nodes: Node[] = [];
    fragment.forEach((node) => {
      const tag = node.isText ? languageOf(node) : null;
      if (tag !== null && tag.split("-")[0] === own) nodes.push(node.mark(type.removeFromSet(node.marks)));
      else nodes.push(node.isText ? node : node.copy(cleaned(node.content)));
    });
    return Fragment.from(nodes);
  };
  return new Slice(cleaned(content), openStart, openEnd);
}
