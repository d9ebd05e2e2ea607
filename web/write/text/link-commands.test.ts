import { describe, expect, test } from "@jest/globals";
import { linkUses } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import { history, undo } from "prosemirror-history";
import { Slice, Fragment, type Node } from "prosemirror-model";
import { EditorState, NodeSelection, TextSelection } from "prosemirror-state";
import { linkRange } from "@vennet/core/manuscript/edit-links";
import { lineAt } from "../links/open-line";
import { autoLink } from "./auto-link";
import {
  editLink,
  insertLinkedWords,
  linkWords,
  removeLink,
  selectLink,
  wordsOfSelection,
} from "./link-commands";
import { linkAtSelection, linkMarks } from "./link-marks";
import { uniqueIds } from "./unique-ids";

const web = (path = "") => ({ kind: "web" as const, address: `https://tides.example/${path}` });
const picture = schema.node("picture", { file: "f", alt: "A chart" });
const doc = (...paragraphs: (string | Node[])[]): Node =>
  schema.node("doc", null, [
    schema.node("title", { id: "title" }, [schema.text("T")]),
    ...paragraphs.map((words) =>
      schema.node("paragraph", null, typeof words === "string" ? (words ? [schema.text(words)] : []) : words),
    ),
  ]);
const stateOf = (document: Node) =>
  EditorState.create({ doc: document, plugins: [history(), uniqueIds, linkMarks, autoLink] });
/** Selects the first place where words stand. */
function select(state: EditorState, words: string): EditorState {
  const text = state.doc.textBetween(0, state.doc.content.size, "\n", "\ufffc");
  let from = -1;
  state.doc.descendants((node, position) => {
    const at = node.isText ? node.text!.indexOf(words) : -1;
    if (from === -1 && at !== -1) from = position + at;
  });
  if (from === -1) throw new Error(`“${words}” is not in ${text}`);
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, from + words.length)));
}
const linked = (state: EditorState) =>
  linkUses(state.doc).map(({ text, destination, description }) => [text, destination, description]);
const link = { destination: web(), description: null };

describe("linking", () => {
  // Common practice: the link covers the words alone, no blank before or after.
  test("leaves out the blanks at the ends of a selection", () => {
    const state = select(stateOf(doc("Ask the office now.")), " the office ");
    const { from, to } = wordsOfSelection(state);
    expect(linked(state.apply(linkWords(state, from, to, link)))).toEqual([["the office", web(), null]]);
  });

  test("gives other words and the link in one change, which one undo takes back", () => {
    let state = select(stateOf(doc("Ask the office now.")), "the office");
    const { from, to } = wordsOfSelection(state);
    state = state.apply(linkWords(state, from, to, { ...link, description: "Hours" }, "the Tide Office"));
    expect(linked(state)).toEqual([["the Tide Office", web(), "Hours"]]);
    expect(state.selection.from).toBe(from + "the Tide Office".length);
    undo(state, (transaction) => (state = state.apply(transaction)));
    expect(state.doc.textContent).toBe("TAsk the office now.");
    expect(linked(state)).toEqual([]);
  });

  test("puts new words in where nothing is selected; what is typed next is plain", () => {
    let state = stateOf(doc("Now. "));
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, state.doc.content.size - 1)));
    state = state.apply(insertLinkedWords(state, "See", link));
    state = state.apply(state.tr.insertText("!"));
    expect(linked(state)).toEqual([["See", web(), null]]);
    expect(state.doc.lastChild!.textContent).toBe("Now. See!");
  });

  test("changes a destination and keeps words and id; removing keeps the words", () => {
    let state = select(stateOf(doc("Ask the office now.")), "office");
    state = state.apply(linkWords(state, state.selection.from, state.selection.to, link));
    const [use] = linkUses(state.doc);
    state = state.apply(editLink(state, use!, { destination: web("b") }));
    expect(linkUses(state.doc)).toMatchObject([{ id: use!.id, text: "office", destination: web("b") }]);
    state = state.apply(removeLink(state, linkUses(state.doc)[0]!));
    expect(state.doc.lastChild!.textContent).toBe("Ask the office now.");
    expect(linked(state)).toEqual([]);
  });

  test("a whole picture keeps being selected, and its words are its alternative", () => {
    let state = stateOf(doc([schema.text("See "), picture]));
    const at = 3 + 1 + 4;
    state = state.apply(state.tr.setSelection(NodeSelection.create(state.doc, at)));
    state = state.apply(linkWords(state, at, at + 1, link, "The whole chart"));
    expect(linkUses(state.doc)).toMatchObject([{ on: "picture", text: "The whole chart" }]);
    expect(state.selection).toBeInstanceOf(NodeSelection);
    expect(linkAtSelection(state)).toMatchObject({ on: "picture" });
  });
});

describe("what the link line opens on", () => {
  const line = (state: EditorState) => lineAt(state, linkAtSelection(state));

  test("selected words, the cursor alone, or what cannot be typed again", () => {
    expect(line(select(stateOf(doc("Ask the office.")), " the "))).toMatchObject({
      words: "the",
      wordsLabel: "Words",
      use: null,
    });
    const cursor = stateOf(doc("Ask."));
    expect(line(cursor.apply(cursor.tr.setSelection(TextSelection.create(cursor.doc, 4))))).toMatchObject({
      from: 4,
      to: 4,
      words: "",
      wordsLabel: "Words",
    });
    const two = stateOf(doc("One.", "Two."));
    expect(line(two.apply(two.tr.setSelection(TextSelection.create(two.doc, 4, 12))))).toMatchObject({
      words: "",
      wordsLabel: null,
    });
    const mixed = stateOf(doc([schema.text("See "), picture, schema.text(" now")]));
    expect(line(mixed.apply(mixed.tr.setSelection(TextSelection.create(mixed.doc, 4, 12))))).toMatchObject({
      wordsLabel: null,
    });
  });

  test("the link at the cursor, whole, and a picture by what it shows", () => {
    let state = select(stateOf(doc("Ask the office.")), "the office");
    state = state.apply(linkWords(state, state.selection.from, state.selection.to, link));
    const whole = { words: "the office", use: { text: "the office" } };
    expect(line(select(state, "the office"))).toMatchObject(whole);
    const inside = TextSelection.create(state.doc, state.selection.from - 3);
    expect(line(state.apply(state.tr.setSelection(inside)))).toMatchObject(whole);
    // Some of its words are to lead elsewhere.
    expect(line(select(state, "off"))).toMatchObject({ words: "off", use: null });
    const shown = stateOf(doc([picture]));
    expect(line(shown.apply(shown.tr.setSelection(NodeSelection.create(shown.doc, 4))))).toMatchObject({
      words: "A chart",
      wordsLabel: "What it shows",
    });
  });

  test("a link over two paragraphs, whose words cannot be typed into one field", () => {
    let state = stateOf(doc("One.", "Two."));
    state = state.apply(linkWords(state, 4, 14, link));
    expect(linkUses(state.doc)).toHaveLength(1);
    expect(line(state.apply(selectLink(state, linkUses(state.doc)[0]!)))).toMatchObject({
      wordsLabel: null,
      use: { parts: [{}, {}] },
    });
  });
});

describe("addresses as they come", () => {
  const pasted = (words: string, marks: string[] = []) => {
    const text = schema.text(
      words,
      marks.map((mark) => schema.mark(mark)),
    );
    const transform = autoLink.props.transformPasted as unknown as (slice: Slice) => Slice;
    const slice = transform(new Slice(Fragment.from(schema.node("paragraph", null, [text])), 1, 1));
    return linkUses(
      schema.node("doc", null, [schema.node("title", { id: "t" }), ...slice.content.content]),
    ).map((use) => use.text);
  };

  test("pasted text links each address that a blank follows, and no bare domain", () => {
    expect(pasted("see https://a.example/x, www.b.example. and tides.example or a@b.example ")).toEqual([
      "https://a.example/x",
      "www.b.example",
      "a@b.example",
    ]);
    expect(pasted("at the end https://a.example/x")).toEqual([]);
  });

  test("what was meant to stay plain stays plain", () => {
    expect(pasted("https://a.example/x and more", ["plain"])).toEqual([]);
    expect(pasted("https://a.example/x and more", ["strong"])).toEqual(["https://a.example/x"]);
  });

  test("a link of words that are an address leaves them plain when it is removed", () => {
    let state = select(stateOf(doc("See www.a.example now.")), "www.a.example");
    state = state.apply(linkWords(state, state.selection.from, state.selection.to, link));
    state = state.apply(removeLink(state, linkUses(state.doc)[0]!));
    let plain = "";
    state.doc.descendants((node) => {
      if (schema.marks["plain"]!.isInSet(node.marks)) plain += node.text;
    });
    expect(plain).toBe("www.a.example");
  });
});

test("a copy that is put in gets ids of its own, and undo does not count that as a step", () => {
  let state = select(stateOf(doc("Ask the office now.")), "office");
  state = state.apply(linkWords(state, state.selection.from, state.selection.to, link));
  const paragraph = state.doc.lastChild!;
  state = state.apply(state.tr.insert(state.doc.content.size, paragraph));
  const ids = linkUses(state.doc).map(({ id }) => id);
  expect(new Set(ids).size).toBe(2);
  undo(state, (transaction) => (state = state.apply(transaction)));
  expect(linkUses(state.doc).map(({ id }) => id)).toEqual([ids[0]]);
});

test("one link is never inside another, whatever is linked over what", () => {
  const state = stateOf(doc("one two three four five", "six seven eight"));
  const size = state.doc.content.size;
  for (let round = 0; round < 60; round++) {
    const change = state.tr;
    for (let i = 0; i < 6; i++) {
      const a = 3 + ((round * 7 + i * 11) % (size - 4));
      const b = 3 + ((round * 13 + i * 5) % (size - 4));
      linkRange(change, Math.min(a, b), Math.max(a, b), { destination: web(String(i)) });
    }
    const uses = linkUses(state.apply(change).doc);
    const covered = uses.flatMap(({ parts }) => parts);
    for (const [i, part] of covered.entries())
      for (const other of covered.slice(i + 1))
        expect(part.to <= other.from || other.to <= part.from).toBe(true);
    expect(new Set(uses.map(({ id }) => id)).size).toBe(uses.length);
  }
});
