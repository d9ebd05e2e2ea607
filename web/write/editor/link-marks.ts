import { writeDestination } from "@vennet/core/destination/destination";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import type { Node } from "prosemirror-model";
import { Plugin, PluginKey, type EditorState } from "prosemirror-state";
import { Decoration, DecorationSet } from "prosemirror-view";
import type { LinkState } from "../../api/client";

interface LinkMarks {
  /** The state of each address, as the last reach run left it. */
  states: Map<string, LinkState>;
  /** The words that the open link line is about; the browser's own selection is in the field then. */
  pending: { from: number; to: number } | null;
}

type Change = Partial<LinkMarks>;

const key = new PluginKey<LinkMarks>("link-marks");
const usesOf = new WeakMap<Node, LinkUse[]>();

/** The links of a document; reckoned once for each version of it. */
export function linksIn(doc: Node): LinkUse[] {
  let uses = usesOf.get(doc);
  if (!uses) usesOf.set(doc, (uses = linkUses(doc)));
  return uses;
}

/** The link that the selection lies in, or null. */
export function linkAtSelection(state: EditorState): LinkUse | null {
  const { from, to } = state.selection;
  return linksIn(state.doc).find((use) => use.from <= from && to <= use.to) ?? null;
}

/** Marks on the page the link at the cursor, the links that are broken, and the words being linked. */
export const linkMarks = new Plugin<LinkMarks>({
  key,
  state: {
    init: () => ({ states: new Map(), pending: null }),
    apply(transaction, value) {
      const change = transaction.getMeta(key) as Change | undefined;
      const pending = value.pending && {
        from: transaction.mapping.map(value.pending.from),
        to: transaction.mapping.map(value.pending.to),
      };
      return { ...value, pending, ...change };
    },
  },
  props: {
    decorations(state) {
      const { states, pending } = key.getState(state)!;
      const active = linkAtSelection(state);
      const marks: Decoration[] = [];
      for (const use of linksIn(state.doc)) {
        const classes = [
          states.get(writeDestination(use.destination)) === "broken" ? "link-broken" : "",
          active?.id === use.id ? "link-active" : "",
        ].filter(Boolean);
        if (classes.length > 0) marks.push(Decoration.inline(use.from, use.to, { class: classes.join(" ") }));
      }
      if (pending) marks.push(Decoration.inline(pending.from, pending.to, { class: "link-pending" }));
      return DecorationSet.create(state.doc, marks);
    },
  },
});

/** A transaction that tells the marks of new states, or of the words that are being linked. */
export function tellLinkMarks(state: EditorState, change: Change) {
  return state.tr.setMeta(key, change).setMeta("addToHistory", false);
}
