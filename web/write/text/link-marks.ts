import { writeDestination } from "@vennet/core/destination/destination";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import { Plugin, PluginKey, type EditorState, type Transaction } from "prosemirror-state";
import { Decoration, DecorationSet } from "prosemirror-view";
import type { LinkState } from "../../api/client";

interface LinkMarks {
  /** The state of each address, as the last reach run left it. */
  states: Map<string, LinkState>;
  /** The words that the open link line is about; the browser's own selection is in the field then. */
  pending: { from: number; to: number } | null;
  /** The hotspot of the selected picture that is meant, rather than the picture. */
  hotspot: string | null;
  /** The position of the block that was just gone to, which is lit up for a moment. */
  lit: number | null;
}

const key = new PluginKey<LinkMarks>("link-marks");
/** The link that the selection lies in, or null. */
export function linkAtSelection(state: EditorState): LinkUse | null {
  const { from, to } = state.selection;
  const hotspot = key.getState(state)?.hotspot;
  return (
    linkUses(state.doc).find((use) =>
      use.on === "hotspot"
        ? use.id === hotspot && use.from === from
        : !hotspot && use.from <= from && to <= use.to,
    ) ?? null
  );
}

/** Marks on the page the link at the cursor, the links that are broken, and the words being linked. */
export const linkMarks = new Plugin<LinkMarks>({
  key,
  state: {
    init: () => ({ states: new Map(), pending: null, hotspot: null, lit: null }),
    apply(transaction, value) {
      const change = transaction.getMeta(key) as Partial<LinkMarks> | undefined;
      const pending = value.pending && {
        from: transaction.mapping.map(value.pending.from, 1),
        to: transaction.mapping.map(value.pending.to, value.pending.from === value.pending.to ? 1 : -1),
      };
      const hotspot = transaction.selectionSet ? null : value.hotspot;
      const lit = value.lit === null ? null : transaction.mapping.map(value.lit);
      return { ...value, pending, hotspot, lit, ...change };
    },
  },
  props: {
    decorations(state) {
      const { states, pending } = key.getState(state)!;
      const active = linkAtSelection(state);
      const marks: Decoration[] = [];
      if (active?.on === "hotspot")
        marks.push(Decoration.node(active.from, active.to, {}, { hotspot: active.id }));
      for (const use of linkUses(state.doc)) {
        if (use.on === "hotspot") continue;
        const broken = states.size > 0 && states.get(writeDestination(use.destination)) === "broken";
        const classes = [broken ? "link-broken" : "", active?.id === use.id ? "link-active" : ""]
          .filter(Boolean)
          .join(" ");
        if (classes === "") continue;
        for (const part of use.parts) marks.push(Decoration.inline(part.from, part.to, { class: classes }));
      }
      const lit = key.getState(state)!.lit;
      const block = lit === null ? null : state.doc.nodeAt(lit);
      if (lit !== null && block)
        marks.push(Decoration.node(lit, lit + block.nodeSize, { class: "place-reached" }));
      if (pending) marks.push(Decoration.inline(pending.from, pending.to, { class: "link-pending" }));
      return DecorationSet.create(state.doc, marks);
    },
  },
});

/** The words that the open link line is about, where they stand now. */
export function pendingWords(state: EditorState): { from: number; to: number } | null {
  return key.getState(state)?.pending ?? null;
}

/** Tells the marks of new states, of the words that are being linked, or of the hotspot that is meant. */
export function tellLinkMarks(transaction: Transaction, change: Partial<LinkMarks>): Transaction {
  return transaction.setMeta(key, change).setMeta("addToHistory", false);
}
