import { expect, test } from "@jest/globals";
import { newId } from "@vennet/core/manuscript/ids";
import { linkUses } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import { history, undo } from "prosemirror-history";
import { Fragment, Slice } from "prosemirror-model";
import { EditorState, TextSelection } from "prosemirror-state";
import { linkEnds } from "./link-ends";
import { wordsTypedOver } from "./words-typed-over";

const link = (address = "https://tides.example/") =>
  schema.mark("link", { id: newId(), destination: { kind: "web", address }, description: null });
const opened = (): EditorState => {
  const words = [schema.text("Ask "), schema.text("the tide office", [link()]), schema.text(" now.")];
  const doc = schema.node("doc", null, [
    schema.node("title", { id: "top" }, [schema.text("T")]),
    schema.node("paragraph", null, words),
  ]);
  return EditorState.create({ doc, plugins: [wordsTypedOver, linkEnds, history()] });
};
const linked = (state: EditorState): string[] => linkUses(state.doc).map(({ text }) => text);
const positionOf = (state: EditorState, words: string): number =>
  3 + 1 + state.doc.lastChild!.textContent.indexOf(words);

const selected = (state: EditorState, words: string): EditorState => {
  const from = positionOf(state, words);
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, from + words.length)));
};
/** As an editor hears of keys: the first letter over what is selected, each other one at the cursor. */
const typed = (state: EditorState, text: string, meta: Record<string, unknown> = {}): EditorState =>
  [...text].reduce((before, letter) => {
    const { from, to } = before.selection;
    const change = before.tr.insertText(letter, from, to);
    for (const [name, value] of Object.entries(meta)) change.setMeta(name, value);
    return before.apply(change);
  }, state);
const moved = (state: EditorState, words: string): EditorState =>
  state.apply(state.tr.setSelection(TextSelection.create(state.doc, positionOf(state, words))));

test.each([
  ["all of its words", "the tide office", "those who know", "those who know"],
  ["its last word", "office", "service", "the tide service"],
  ["its first word", "the", "your", "your tide office"],
  ["its last word and the blank behind it", "office ", "service ", "the tide service"],
  ["a word amid others", "tide", "harbour", "the harbour office"],
  ["blanks at its end", "office", "desk ", "the tide desk"],
  ["a full stop within", "office", "desk.example", "the tide desk.example"],
])("what is typed over %s is the link’s", (_what, over, text, then) => {
  const state = typed(selected(opened(), over), text);
  expect(linked(state)).toEqual([then]);
});

test("a sentence that ends, or a cursor that goes elsewhere, leaves the link behind", () => {
  const state = typed(selected(opened(), "the tide office"), "the pilot. Then wait");
  expect(linked(state)).toEqual(["the pilot"]);
  expect(state.doc.textContent).toBe("TAsk the pilot. Then wait now.");
  const over = typed(selected(opened(), "the tide office"), "pilot");
  const back = moved(moved(over, "Ask"), " now");
  expect(linked(typed(back, "s"))).toEqual(["pilot"]);
});

test("a first letter that is as it was is no deletion of the others", () => {
  const state = selected(opened(), "the tide office");
  const { from, to } = state.selection;
  // An editor that compares what is shown sees “he tide office” go.
  const change = state.tr.delete(from + 1, to);
  change.setSelection(TextSelection.create(change.doc, from + 1));
  expect(linked(typed(state.apply(change), "hose who know"))).toEqual(["those who know"]);
});

test("words that are deleted take their link with them, and others' words stay theirs", () => {
  const state = selected(opened(), "the tide office");
  expect(linked(typed(state.apply(state.tr.deleteSelection()), "x"))).toEqual([]);
  expect(linked(typed(selected(opened(), "Ask the tide office"), "x"))).toEqual([]);
  const own = new Slice(Fragment.from(schema.text("a pilot", [link("https://pilot.example/")])), 0, 0);
  const pasted = selected(opened(), "tide");
  const uses = linkUses(pasted.apply(pasted.tr.replaceSelection(own)).doc);
  expect(uses.map(({ text }) => text)).toContain("a pilot");
});

test("words that are pasted over a link are its words; what is typed behind them is not", () => {
  const state = selected(opened(), "the tide office");
  const slice = new Slice(Fragment.from(schema.text("those who know")), 0, 0);
  const pasted = state.apply(state.tr.replaceSelection(slice).setMeta("uiEvent", "paste"));
  expect(linked(pasted)).toEqual(["those who know"]);
  expect(linked(typed(pasted, "s"))).toEqual(["those who know"]);
});

test("a spelling that is mended at the link’s end stays the link’s, and nothing follows", () => {
  const state = moved(opened(), "Ask");
  const end = positionOf(state, " now");
  const mended = state.apply(state.tr.insertText("re", end - 2, end));
  expect(linked(mended)).toEqual(["the tide offire"]);
  expect(linked(typed(moved(mended, " now"), "s"))).toEqual(["the tide offire"]);
});

test("what an input method is still at is the link’s when it has ended, also where the cursor goes", () => {
  const composed = typed(selected(opened(), "the tide office"), "mo", { composition: 1 });
  expect(linked(composed)).toEqual([]);
  expect(linked(typed(composed, "r"))).toEqual(["mor"]);
  expect(linked(moved(composed, "Ask"))).toEqual(["mo"]);
});

test("undo gives the words and the link back", () => {
  let state = typed(selected(opened(), "the tide office"), "those");
  for (let i = 0; i < 5 && linked(state)[0] !== "the tide office"; i++)
    undo(state, (change) => (state = state.apply(change)));
  expect(linked(state)).toEqual(["the tide office"]);
});
