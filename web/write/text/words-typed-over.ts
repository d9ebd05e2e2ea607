import { schema } from "@vennet/core/manuscript/schema";
import { isHistoryTransaction } from "prosemirror-history";
import type { Mark, Node } from "prosemirror-model";
import { Plugin, PluginKey, type EditorState, type Transaction } from "prosemirror-state";
import { Mapping, ReplaceStep } from "prosemirror-transform";
import { adopted } from "./adopt-text";

/** A link whose words are being typed anew. */
interface TypedAnew {
  mark: Mark;
  /** Where the words end that are the link's so far. */
  end: number;
  /** Where all ends that has been typed. */
  typed: number;
}

const key = new PluginKey<TypedAnew | null>("words typed over");

/** What ends a sentence, or leaves a link behind: what is typed then is no more of its words. */
const ends = /[.,;:!?…]+\s|\s\s/;
/** What may stand behind a link as well as in it, until more is typed. */
const open = /[\s.,;:!?…]+$/;

/**
 * What is typed or pasted in place of words of a link is the link's too: nobody who corrects them means to take it away.
 * What is typed over the selection goes on being its words until a sentence ends or the cursor goes elsewhere.
 */
export const wordsTypedOver = new Plugin<TypedAnew | null>({
  key,
  state: {
    init: () => null,
    apply(transaction, link, _old, state) {
      const told = transaction.getMeta(key) as TypedAnew | null | undefined;
      if (told !== undefined) return told;
      if (!link || isHistoryTransaction(transaction)) return null;
      const { end, typed } = mapped(link, transaction.mapping);
      const { $from, empty } = state.selection;
      if (!empty || $from.pos < end || end < $from.start()) return null;
      if (transaction.docChanged) return { mark: link.mark, end, typed: $from.pos };
      return $from.pos === typed ? { mark: link.mark, end, typed } : null;
    },
  },
  appendTransaction(transactions, old, state) {
    if (transactions.some(isHistoryTransaction)) return null;
    const over = transactions.length === 1 ? typedOver(transactions[0]!, old, state) : null;
    // A mark on what an input method is still at would end it.
    const isComposing = transactions.some((one) => one.getMeta("composition") !== undefined);
    if (over && isComposing) return state.tr.setMeta(key, over.link);
    if (over) {
      const { mark, end, typed } = over.link;
      return state.tr
        .addMark(end, typed, mark)
        .setMeta(key, over.goesOn ? { ...over.link, end: typed } : null);
    }
    const was = key.getState(old);
    if (!was || isComposing) return null;
    const now = key.getState(state);
    return typedOn(now ?? mapped(was, mappingOf(transactions)), now !== null, state);
  },
});

function mappingOf(transactions: readonly Transaction[]): Mapping {
  const all = new Mapping();
  for (const { mapping } of transactions) all.appendMapping(mapping);
  return all;
}

const mapped = (link: TypedAnew, mapping: Mapping): TypedAnew => ({
  mark: link.mark,
  end: mapping.map(link.end, -1),
  typed: mapping.map(link.typed, -1),
});

/** Gives a link what has been typed behind its new words. */
function typedOn(link: TypedAnew, isGoingOn: boolean, state: EditorState): Transaction | null {
  const text = state.doc.textBetween(link.end, link.typed, "\n", "\ufffc");
  const [own, ...rest] = text.split(ends);
  const words = own!.replace(open, "");
  const end = link.end + words.length;
  const hasEnded = isGoingOn && rest.length > 0;
  if ((words === "" && !hasEnded) || !isPlain(state.doc, link.end, end, link.mark)) return null;
  const change = state.tr;
  if (words !== "") change.addMark(link.end, end, link.mark);
  return change.setMeta(key, isGoingOn && !hasEnded ? { ...link, end } : null);
}

/** Of a change that puts plain words in place of words of one link: which link, and whether more of them may follow. */
function typedOver(
  change: Transaction,
  { selection }: EditorState,
  { doc }: EditorState,
): { link: TypedAnew; goesOn: boolean } | null {
  const [step, ...more] = change.steps;
  if (!(step instanceof ReplaceStep) || more.length > 0 || change.getMeta("appendedTransaction")) return null;
  if (change.getMeta(adopted) || change.getMeta("uiEvent") === "drop") return null;
  // Letters that are as they were are not in the step.
  const isOfSelection = !selection.empty && selection.from <= step.from && step.to <= selection.to;
  const { from, to } = isOfSelection ? selection : step;
  const typed = change.mapping.map(to, 1);
  const mark = linkOf(change.docs[0]!, from, to);
  if (!mark || from === typed || !isPlain(doc, from, typed, mark)) return null;
  return {
    link: { mark, end: from, typed },
    goesOn: isOfSelection && change.getMeta("uiEvent") !== "paste",
  };
}

/**
 * The link that covers all of a stretch of one paragraph, but for blanks at its end, which some systems select with the
 * word before them.
 */
function linkOf(doc: Node, from: number, to: number): Mark | null {
  const $from = doc.resolve(from);
  if (!$from.parent.inlineContent || to > $from.end()) return null;
  const end = from + doc.textBetween(from, to, null, "\ufffc").trimEnd().length;
  if (end === from) return null;
  const marks: (Mark | undefined)[] = [];
  doc.nodesBetween(from, end, (node) => {
    if (node.isInline) marks.push(schema.marks.link!.isInSet(node.marks));
  });
  const [first] = marks;
  return first && marks.every((mark) => mark?.attrs["id"] === first.attrs["id"]) ? first : null;
}

/** Whether a stretch is words of one paragraph that no other link has. */
function isPlain(doc: Node, from: number, to: number, mark: Mark): boolean {
  if (to > doc.resolve(from).end()) return false;
  let isIt = true;
  doc.nodesBetween(from, to, (node) => {
    const other = schema.marks.link!.isInSet(node.marks);
    if (node.isInline && (!node.isText || (other && other.attrs["id"] !== mark.attrs["id"]))) isIt = false;
  });
  return isIt;
}
