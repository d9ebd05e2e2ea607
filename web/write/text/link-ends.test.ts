import { expect, test } from "@jest/globals";
import { linkUses } from "@vennet/core/manuscript/links";
import { newId } from "@vennet/core/manuscript/ids";
import { schema } from "@vennet/core/manuscript/schema";
import { EditorState, TextSelection } from "prosemirror-state";
import { linkEnds } from "./link-ends";

const link = schema.mark("link", {
  id: newId(),
  destination: { kind: "web", address: "https://tides.example/" },
  description: null,
});
const opened = (): EditorState => {
  const words = [schema.text("Ask "), schema.text("the office", [link]), schema.text(" now.")];
  const doc = schema.node("doc", null, [
    schema.node("title", { id: "top" }, [schema.text("T")]),
    schema.node("paragraph", null, words),
  ]);
  return EditorState.create({ doc, plugins: [linkEnds] });
};
const linked = (state: EditorState): string[] => linkUses(state.doc).map(({ text }) => text);
const end = 3 + 1 + "Ask the office".length;

test("a letter that is typed in place of a link's last one is the link's, what follows is not", () => {
  let state = opened();
  state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, end)));
  state = state.apply(state.tr.delete(end - 1, end));
  expect(linked(state)).toEqual(["the offic"]);
  state = state.apply(state.tr.insertText("e"));
  expect(linked(state)).toEqual(["the office"]);
  state = state.apply(state.tr.insertText("s"));
  expect(linked(state)).toEqual(["the office"]);
});

test("what is typed at a link's end, or where words behind it were deleted, is not the link's", () => {
  let state = opened();
  state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, end)));
  expect(linked(state.apply(state.tr.insertText("s")))).toEqual(["the office"]);
  state = state.apply(state.tr.delete(end, end + 4));
  expect(linked(state.apply(state.tr.insertText("s")))).toEqual(["the office"]);
});
