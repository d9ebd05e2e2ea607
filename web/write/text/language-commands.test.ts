import { expect, test } from "@jest/globals";
import { languageOf } from "@vennet/core/manuscript/language";
import { schema } from "@vennet/core/manuscript/schema";
import { Fragment, Slice, type Node } from "prosemirror-model";
import { EditorState, TextSelection } from "prosemirror-state";
import { markLanguage, withoutOwnLanguage, wordsInLanguage } from "./language-commands";

const inTag = (words: string, tag: string): Node => schema.text(words, [schema.mark("language", { tag })]);
const stateOf = (...inline: Node[]): EditorState =>
  EditorState.create({
    doc: schema.node("doc", null, [
      schema.node("title", { id: "t-1" }, [schema.text("T")]),
      schema.node("paragraph", null, inline),
    ]),
  });
const selecting = (state: EditorState, from: number, to = from): EditorState =>
  state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, to)));
const languages = (state: EditorState): (string | null)[] => state.doc.child(1).children.map(languageOf);

test("selected words get a language, and give it back", () => {
  const state = selecting(stateOf(schema.text("the motto Fluctuat here")), 14, 22);
  let next = state;
  expect(markLanguage("la")(state, (change) => (next = state.apply(change)))).toBe(true);
  expect(languages(next)).toEqual([null, "la", null]);
  // The cursor within them finds all of them.
  const within = selecting(next, 16);
  expect(wordsInLanguage(within)).toEqual({ from: 14, to: 22, tag: "la" });
  markLanguage(null)(within, (change) => (next = within.apply(change)));
  expect(languages(next)).toEqual([null]);
});

test("the cursor in words of no language of their own has none to change", () => {
  expect(wordsInLanguage(selecting(stateOf(schema.text("plain")), 5))).toBeNull();
  expect(markLanguage("fr")(selecting(stateOf(schema.text("plain")), 5))).toBe(false);
});

test("pasted words in the book’s own language are not marked; others stay so", () => {
  const slice = new Slice(
    Fragment.from(schema.node("paragraph", null, [inTag("words ", "en-US"), inTag("à marée basse", "fr")])),
    1,
    1,
  );
  const { content } = withoutOwnLanguage(slice, "en-GB");
  expect(content.firstChild!.children.map(languageOf)).toEqual([null, "fr"]);
});
