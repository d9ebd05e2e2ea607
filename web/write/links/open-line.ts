import type { KnownDestination } from "@vennet/core/destination/suggest";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { placesOf } from "@vennet/core/manuscript/outline";
import { pictureAttrs } from "@vennet/core/manuscript/attributes";
import type { Node } from "prosemirror-model";
import { NodeSelection, type EditorState } from "prosemirror-state";
import { wordsOfSelection } from "../text/link-commands";
import { kindWords } from "../../destinations/known-place";

/** What an open link line is about. */
export interface OpenLine {
  from: number;
  to: number;
  top: number;
  use: LinkUse | null;
  words: string;
  /** What the words are called; null where they cannot be changed from here. */
  wordsLabel: string | null;
  /** The places of this chapter as it stands, of which the server may not know yet. */
  nearby: KnownDestination[];
}

/** What the link line is about at the selection: the link there, the words, or the picture. */
export function lineAt(state: EditorState, use: LinkUse | null): Omit<OpenLine, "top" | "nearby"> | null {
  const { selection, doc } = state;
  if (use?.on === "reference") {
    const { from, to, text } = use;
    return { from, to, use, words: text, wordsLabel: null };
  }
  const isPart =
    use?.on === "words" && !selection.empty && (selection.from > use.from || selection.to < use.to);
  if (use && use.on !== "hotspot" && !isPart) {
    const { from, to, text, on } = use;
    const holdsMore =
      on === "words" && (use.parts.length > 1 || doc.textBetween(from, to, "", "\ufffc") !== text);
    return {
      from,
      to,
      use,
      words: text,
      wordsLabel: on === "picture" ? "What it shows" : holdsMore ? null : "Words",
    };
  }
  if (selection instanceof NodeSelection) {
    if (selection.node.type.name !== "picture") return null;
    const { from, to } = selection;
    return { from, to, use: null, words: pictureAttrs(selection.node).alt, wordsLabel: "What it shows" };
  }
  const range = wordsOfSelection(state);
  const { from, to } = range.from < range.to ? range : { from: selection.to, to: selection.to };
  const { parent } = doc.resolve(from);
  if (!parent.inlineContent) return null;
  const words = doc.textBetween(from, to, "", "\ufffc");
  const isPlainWords = !words.includes("\ufffc") && doc.resolve(to).parent === parent;
  return { from, to, use: null, words: isPlainWords ? words : "", wordsLabel: isPlainWords ? "Words" : null };
}

/** The places of the chapter that is being written, for the link line. */
export function placesNearby(doc: Node): KnownDestination[] {
  return placesOf(doc).map(({ id, kind, text, context }) => ({
    destination: { kind: "place", target: id },
    name: text || kindWords[kind],
    detail:
      kind === "title"
        ? "This chapter"
        : `${kindWords[kind]} in this chapter${context ? `: ${context}` : ""}`,
    uses: 0,
  }));
}
