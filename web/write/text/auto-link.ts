import { linkUses } from "@vennet/core/manuscript/links";
import { addressInWord, addressRuns } from "@vennet/core/destination/addresses-in-text";
import { recognise } from "@vennet/core/destination/recognise";
import { linkRange } from "@vennet/core/manuscript/edit-links";
import { newId } from "@vennet/core/manuscript/ids";
import { linkOn, schema } from "@vennet/core/manuscript/schema";
import { closeHistory } from "prosemirror-history";
import { Fragment, Slice, type Node } from "prosemirror-model";
import { Plugin, PluginKey, type EditorState, type Transaction } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";

const key = new PluginKey<Set<string>>("auto-link");

/**
 * Makes links of addresses as they are typed: at the blank or Enter that ends them. One that was undone
 * once stays plain, whatever is typed after it.
 */
export const autoLink = new Plugin<Set<string>>({
  key,
  state: {
    // The links that were made here, so that their undoing is told from any other.
    init: () => new Set(),
    apply(transaction, made) {
      const id = transaction.getMeta(key) as string | undefined;
      return id === undefined ? made : new Set(made).add(id);
    },
  },
  props: {
    handleTextInput(view, from, to, text) {
      if (!/^\s$/.test(text) || from !== to) return false;
      const word = addressBefore(view.state, from);
      if (!word) return false;
      view.dispatch(view.state.tr.insertText(text, from, to));
      makeLink(view, word);
      return true;
    },
    handleKeyDown(view, event) {
      if (event.key !== "Enter" || event.ctrlKey || event.metaKey || !view.state.selection.empty)
        return false;
      const word = addressBefore(view.state, view.state.selection.from);
      if (word) makeLink(view, word);
      return false;
    },
    transformPasted: (slice) => new Slice(linkAddresses(slice.content), slice.openStart, slice.openEnd),
  },
  appendTransaction(transactions, old, state) {
    if (!transactions.some((transaction) => transaction.getMeta("history$"))) return null;
    return keepPlain(key.getState(old)!, old, state);
  },
});

interface Word {
  from: number;
  to: number;
  text: string;
}

/** The address that ends at a position, if one does that may become a link. */
function addressBefore(state: EditorState, position: number): Word | null {
  const $at = state.doc.resolve(position);
  if (!$at.parent.isTextblock || $at.parent.type.spec.code) return null;
  const text = $at.parent.textBetween(0, $at.parentOffset, "\n", " ");
  const word = text.slice(startOfLastWord(text));
  const run = [...word.matchAll(addressRuns)].at(-1);
  const trimmed = run ? addressInWord(run[0]) : null;
  if (!run || trimmed === null) return null;
  const from = position - word.length + run.index + run[0].indexOf(trimmed);
  const to = from + trimmed.length;
  let taken = false;
  state.doc.nodesBetween(from, to, (node) => {
    if (linkOn(node) || schema.marks.plain!.isInSet(node.marks)) taken = true;
  });
  return taken ? null : { from, to, text: trimmed };
}

function makeLink(view: EditorView, { from, to, text }: Word): void {
  const change = closeHistory(view.state.tr);
  const id = linkRange(change, from, to, { destination: recognise(text).destination });
  if (id) view.dispatch(change.setMeta(key, id));
}

/** Marks as plain the words of links made here that an undo has taken away. */
function keepPlain(made: Set<string>, old: EditorState, state: EditorState): Transaction | null {
  if (made.size === 0) return null;
  const left = new Set(linkUses(state.doc).map(({ id }) => id));
  const change = state.tr;
  for (const use of linkUses(old.doc)) {
    if (!made.has(use.id) || left.has(use.id) || use.to > state.doc.content.size) continue;
    if (state.doc.textBetween(use.from, use.to) === use.text)
      change.addMark(use.from, use.to, schema.mark("plain"));
  }
  return change.docChanged ? change.setMeta("addToHistory", false) : null;
}

/**
 * Links the addresses in pasted content that a blank follows, or the end of their block; that at the end of all waits for
 * its blank.
 */
function linkAddresses(content: Fragment, isAtEnd = true): Fragment {
  const nodes: Node[] = [];
  content.forEach((node, _, i) => {
    const isLast = isAtEnd && i === content.childCount - 1;
    if (node.isText) nodes.push(...linkedText(node, i === content.childCount - 1 && !isAtEnd));
    else nodes.push(node.type.spec.code ? node : node.copy(linkAddresses(node.content, isLast)));
  });
  return Fragment.from(nodes);
}

/** Where the word begins with which a text ends, behind its last blank. */
function startOfLastWord(text: string): number {
  return /^.*\s/s.exec(text)?.[0].length ?? 0;
}

/** @param endsBlock whether its last word is ended by the end of its block */
function linkedText(node: Node, endsBlock: boolean): Node[] {
  const text = node.text!;
  if (linkOn(node) || schema.marks.plain!.isInSet(node.marks)) return [node];
  const parts: Node[] = [];
  let done = 0;
  // The last word waits for what ends it.
  const ended = endsBlock ? text.length : startOfLastWord(text);
  for (const match of text.slice(0, ended).matchAll(addressRuns)) {
    const trimmed = addressInWord(match[0]);
    if (trimmed === null) continue;
    const from = match.index + match[0].indexOf(trimmed);
    if (from > done) parts.push(node.cut(done, from));
    done = from + trimmed.length;
    const link = schema.mark("link", { id: newId(), destination: recognise(trimmed).destination });
    parts.push(node.cut(from, done).mark(link.addToSet(node.marks)));
  }
  if (done < text.length) parts.push(node.cut(done));
  return parts;
}
