import { describe, expect, test } from "@jest/globals";
import { newId } from "@vennet/core/manuscript/ids";
import { schema } from "@vennet/core/manuscript/schema";
import { history, redo, undo } from "prosemirror-history";
import { Fragment, type Node } from "prosemirror-model";
import { AllSelection, EditorState, TextSelection, type Command } from "prosemirror-state";
import { formerIds, makeHeading, makeParagraph, stepHeading } from "./block-kinds";
import { bookNumbers } from "./book-numbers";
import { withIdsForPaste } from "./paste-ids";
import { uniqueIds } from "./unique-ids";

const text = (words: string, target?: string) =>
  schema.text(
    words,
    target === undefined
      ? []
      : [
          schema.mark("link", {
            id: newId(),
            destination: { kind: "place", target },
            description: null,
          }),
        ],
  );
const heading = (id: string, words: string, level = 1) =>
  schema.node("heading", { id, level }, [text(words)]);
const paragraph = (...words: Node[]) => schema.node("paragraph", null, words);
const chapter = (...blocks: Node[]) =>
  schema.node("doc", null, [schema.node("title", { id: "top" }, [text("Tides")]), ...blocks]);
const stateOf = (doc: Node) =>
  EditorState.create({ doc, plugins: [history(), uniqueIds, formerIds, bookNumbers("chapter")] });

function run(state: EditorState, ...commands: Command[]): EditorState {
  for (const command of commands) command(state, (change) => (state = state.apply(change)));
  return state;
}
const at = (state: EditorState, words: string): EditorState => {
  let position = -1;
  state.doc.descendants((node, pos) => {
    if (node.isTextblock && node.textContent.includes(words)) position = pos + 1;
  });
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, position)));
};
const told = ({ doc }: EditorState) =>
  doc.children.map((node) =>
    [node.type.name, node.attrs["id"], node.attrs["level"], node.textContent].filter(
      (one) => one !== undefined && one !== null,
    ),
  );

describe("an id stays with its words", () => {
  test("when a heading's level changes, by list and by keys", () => {
    const state = at(stateOf(chapter(heading("low", "Low water", 1))), "Low water");
    expect(told(run(state, makeHeading(3)))[1]).toEqual(["heading", "low", 3, "Low water"]);
    expect(told(run(state, stepHeading(1), stepHeading(1), stepHeading(-1)))[1]).toEqual([
      "heading",
      "low",
      2,
      "Low water",
    ]);
  });

  test("when it becomes a paragraph and a heading again, with anything typed meanwhile", () => {
    let state = at(stateOf(chapter(paragraph(text("Before.")), heading("low", "Low water"))), "Low water");
    state = run(state, makeParagraph);
    expect(told(state)[2]).toEqual(["paragraph", "Low water"]);
    state = state.apply(state.tr.insertText("Far ", 1));
    state = state.apply(state.tr.insertText("New. ", 12));
    state = run(at(state, "Low water"), makeHeading(2));
    expect(told(state)[2]).toEqual(["heading", "low", 2, "Low water"]);
    expect(told(run(state, undo, undo, redo, redo))[2]).toEqual(["heading", "low", 2, "Low water"]);
  });

  test("as an anchor while it is a paragraph to which a link leads", () => {
    const whole = chapter(paragraph(text("See it", "low")), heading("low", "Low water"));
    let state = run(at(stateOf(whole), "Low water"), makeParagraph);
    const anchor = state.doc.child(2).firstChild!;
    expect([anchor.type.name, anchor.attrs]).toEqual(["anchor", { id: "low", name: "Low water" }]);
    state = run(state, makeHeading(1));
    expect(state.doc.eq(whole)).toBe(true);
  });

  test("of every heading of a selection, and never of two", () => {
    let state = stateOf(
      chapter(heading("low", "Low water"), paragraph(text("Wade.")), heading("high", "High water")),
    );
    state = state.apply(
      state.tr.setSelection(TextSelection.create(state.doc, 8, state.doc.content.size - 1)),
    );
    state = run(state, makeParagraph, makeHeading(2));
    const ids = told(state)
      .slice(1)
      .map(([, id]) => id);
    expect([ids[0], ids[2]]).toEqual(["low", "high"]);
    expect(new Set(ids).size).toBe(3);
  });
});

describe("what is pasted over a whole text", () => {
  const whole = chapter(heading("low", "Low water"), paragraph(text("Wade.")), heading("high", "High water"));
  const over = (content: Fragment) => {
    let state = stateOf(whole);
    state = state.apply(state.tr.setSelection(new AllSelection(state.doc)));
    const ids = withIdsForPaste(content, state, new Set());
    return told(state.apply(state.tr.replaceWith(0, state.doc.content.size, ids)));
  };

  test("keeps its ids where it is the same text", () => {
    expect(over(whole.content)).toEqual(told(stateOf(whole)));
  });

  test("gets them by its words where another program has dropped them", () => {
    const [changed, without] = [heading("unset", "Slack water"), heading("unset", "High water", 2)];
    const pasted = over(Fragment.from([changed, paragraph(text("Swim.")), without]));
    expect(pasted.map(([, id]) => id)).toEqual(["top", expect.stringMatching(/^[a-z]/), "Swim.", "high"]);
  });

  test("of a copy beside its original only the copy is new", () => {
    let state = stateOf(whole);
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, state.doc.content.size - 1)));
    const ids = withIdsForPaste(Fragment.from(whole.child(1)), state, new Set());
    expect(ids.firstChild!.attrs["id"]).not.toBe("low");
  });
});
