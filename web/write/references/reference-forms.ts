import type { BookIndex } from "@vennet/core/manuscript/book-index";
import { referenceWords } from "@vennet/core/manuscript/references";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { referenceAttrs, type CrossReference, type ReferenceForm } from "@vennet/core/manuscript/attributes";
import type { EditorState } from "prosemirror-state";
import { bookAround } from "../text/book-numbers";

/** The forms of a cross-reference as the author is told of them. */
export const forms: [ReferenceForm, string][] = [
  ["text", "Its words"],
  ["number", "Its number"],
  ["page", "Its page"],
  ["page-and-text", "Words and page"],
  ["above-or-below", "Above or below"],
];

/** What a cross-reference would say, with the page of the last PDF; or why it would say nothing. */
export function sayingOf(
  reference: Pick<CrossReference, "target" | "form" | "fallback">,
  around: { index: BookIndex; chapter: number; pages: ReadonlyMap<string, string> },
  position: number,
): { words: string; isGap: boolean } {
  const from = { chapter: around.chapter, position };
  const says = referenceWords({ id: "", ...reference }, around.index, from, true);
  if (says.kind === "gap") return { words: says.reason, isGap: true };
  if (says.kind === "words") return { words: says.words, isGap: false };
  return { words: says.before + (around.pages.get(reference.target) ?? "…") + says.after, isGap: false };
}

/** A cross-reference of the text, and what each form of it would say. */
export interface ReferenceInfo {
  form: ReferenceForm;
  fallback: CrossReference["fallback"];
  sayings: { form: ReferenceForm; name: string; words: string; isGap: boolean }[];
}

/** What a link is as a cross-reference, as the text stands now; null where it is none. */
export function referenceInfo(state: EditorState, use: LinkUse): ReferenceInfo | null {
  const node = state.doc.nodeAt(use.from);
  const around = bookAround(state);
  if (node?.type.name !== "cross_reference" || !around) return null;
  const { target, form, fallback } = referenceAttrs(node);
  const sayings = forms.map(([one, name]) => ({
    form: one,
    name,
    ...sayingOf({ target, form: one, fallback }, around, use.from),
  }));
  return { form, fallback, sayings };
}
