import { expect, test } from "@jest/globals";
import { linkRange, giveOwnIds, unlink } from "@vennet/core/manuscript/edit-links";
import { linkUses } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import fc from "fast-check";
import { history, undo } from "prosemirror-history";
import type { Node } from "prosemirror-model";
import { EditorState, TextSelection } from "prosemirror-state";
import { Transform } from "prosemirror-transform";
import { adoptText } from "./adopt-text";

const paragraphs = (...texts: string[]): Node =>
  schema.node("doc", null, [
    schema.node("title", { id: "title" }, [schema.text("T")]),
    ...texts.map((text) => schema.node("paragraph", null, text === "" ? [] : [schema.text(text)])),
  ]);

test("any text becomes any other, and an equal one is left alone", () => {
  const words = fc.array(fc.stringMatching(/^[ab ]{0,6}$/), { minLength: 1, maxLength: 5 });
  fc.assert(
    fc.property(words, words, (before, after) => {
      const [from, to] = [paragraphs(...before), paragraphs(...after)];
      const change = adoptText(EditorState.create({ doc: from }), to);
      expect(change === null).toBe(from.eq(to));
      expect((change?.doc ?? from).eq(to)).toBe(true);
    }),
  );
});

test("links that come or go are adopted, and the cursor stays where it was", () => {
  const before = paragraphs("The tide office knows.", "Ask it.");
  const change = new Transform(before);
  linkRange(change, 7, 18, { destination: { kind: "web", address: "https://tides.example/" } });
  giveOwnIds(change);
  let state = EditorState.create({
    doc: before,
    selection: TextSelection.create(before, before.content.size - 2),
  });
  const cursor = state.selection.from;
  state = state.apply(adoptText(state, change.doc)!);
  expect(linkUses(state.doc)).toHaveLength(1);
  expect(state.selection.from).toBe(cursor);
  const back = new Transform(state.doc);
  unlink(back, linkUses(state.doc)[0]!);
  expect(state.apply(adoptText(state, back.doc)!).doc.eq(before)).toBe(true);
});

test("what the author typed before can still be undone, and the adopted text stays", () => {
  let state = EditorState.create({ doc: paragraphs("One.", "Two."), plugins: [history()] });
  state = state.apply(state.tr.insertText("typed ", 4));
  const change = new Transform(state.doc);
  const end = state.doc.content.size - 1;
  linkRange(change, end - 4, end - 1, { destination: { kind: "web", address: "https://tides.example/" } });
  state = state.apply(adoptText(state, change.doc)!);
  undo(state, (transaction) => (state = state.apply(transaction)));
  expect(state.doc.textContent).toBe("TOne.Two.");
  expect(linkUses(state.doc)).toMatchObject([{ text: "Two" }]);
});

test("the cursor stays in its paragraph, whatever changes before and behind it", () => {
  const before = paragraphs("One.", "Two words.", "Three.");
  const at = 1 + 1 + 1 + 6 + 1 + 3;
  const state = EditorState.create({ doc: before, selection: TextSelection.create(before, at) });
  const next = paragraphs("New.", "One, longer.", "Two words.", "Three, too.");
  const { $from } = state.apply(adoptText(state, next)!).selection;
  expect([$from.parent.textContent, $from.parentOffset]).toEqual([
    "Two words.",
    state.selection.$from.parentOffset,
  ]);
});
