import { describe, expect, test } from "@jest/globals";
import { schema } from "@vennet/core/manuscript/schema";
import { EditorState, TextSelection, type Command } from "prosemirror-state";
import type { Node } from "prosemirror-model";
import {
  align,
  enterSetApart,
  insertCredit,
  insertDefinitions,
  makeTasks,
  setOffAs,
  setOffNoMore,
  setTask,
} from "./set-apart-commands";

const paragraph = (words = ""): Node => schema.node("paragraph", null, words ? [schema.text(words)] : []);
const doc = (...blocks: Node[]): Node =>
  schema.node("doc", null, [schema.node("title", { id: "t" }), ...blocks]);

/** A text that is worked on, with the cursor at the end of some words. */
class Working {
  state: EditorState;
  constructor(start: Node, words: string) {
    this.state = EditorState.create({ doc: start });
    this.goTo(words);
  }
  goTo(words: string): this {
    let at = 1;
    this.state.doc.descendants((node, position) => {
      if (node.isText && node.text!.includes(words)) at = position + node.text!.indexOf(words) + words.length;
    });
    this.state = this.state.apply(this.state.tr.setSelection(TextSelection.create(this.state.doc, at)));
    return this;
  }
  run(command: Command): this {
    expect(command(this.state)).toBe(true);
    command(this.state, (change) => (this.state = this.state.apply(change)));
    this.state.doc.check();
    return this;
  }
  type(words: string): this {
    this.state = this.state.apply(this.state.tr.insertText(words));
    return this;
  }
  get text(): string {
    return this.state.doc.children.slice(1).map(String).join(", ");
  }
}

describe("terms and meanings", () => {
  test("are written one after the other with Enter, which also leads out of them", () => {
    const { text } = new Working(doc(paragraph("Ebb")), "Ebb")
      .run(insertDefinitions)
      .type("going out")
      .run((state, dispatch) => {
        dispatch?.(state.tr.split(state.selection.from));
        return true;
      })
      .run(enterSetApart)
      .type("Slack")
      .run(enterSetApart)
      .type("neither")
      .run((state, dispatch) => {
        dispatch?.(state.tr.split(state.selection.from));
        return true;
      })
      .run(enterSetApart)
      .run(enterSetApart)
      .type("Then");
    expect(text).toBe(
      'definition_list(definition_term("Ebb"), definition(paragraph("going out")), definition_term("Slack"), definition(paragraph("neither"))), paragraph("Then")',
    );
  });

  test("an empty term alone is a paragraph again with Enter", () => {
    const working = new Working(doc(paragraph("a"), paragraph()), "a");
    working.state = working.state.apply(
      working.state.tr.setSelection(TextSelection.create(working.state.doc, 6)),
    );
    working.run(insertDefinitions).type("T");
    expect(working.text).toBe('paragraph("a"), definition_list(definition_term("T"), definition(paragraph))');
  });

  test("Enter within a term, and in a meaning with words, is as everywhere", () => {
    const working = new Working(doc(paragraph("Ebb")), "Ebb").run(insertDefinitions).type("out");
    expect(enterSetApart(working.state)).toBe(false);
    expect(enterSetApart(working.goTo("Eb").state)).toBe(false);
  });
});

test("tasks are made of paragraphs and of items, and are done or none again", () => {
  const done = (working: Working): unknown[] => {
    const found: unknown[] = [];
    working.state.doc.descendants((node) => {
      if (node.type.name === "list_item") found.push(node.attrs["done"]);
    });
    return found;
  };
  const working = new Working(doc(paragraph("boots")), "boots").run(makeTasks);
  expect(done(working)).toEqual([false]);
  expect(done(working.run(setTask(true)))).toEqual([true]);
  expect(done(working.run(makeTasks))).toEqual([null]);
  expect(setTask(true)(new Working(doc(paragraph("a")), "a").state)).toBe(false);
});

test("what is set off becomes of another kind, and plain", () => {
  const working = new Working(doc(paragraph("a")), "a").run(setOffAs("verse")).run(setOffAs("notice"));
  expect(working.state.doc.child(1).attrs).toEqual({ kind: "notice" });
  expect(working.run(setOffNoMore).text).toBe('paragraph("a")');
  expect(setOffNoMore(working.state)).toBe(false);
});

test("paragraphs are aligned, and as usual again", () => {
  const working = new Working(doc(paragraph("a")), "a").run(align("end"));
  expect(working.state.doc.child(1).attrs).toEqual({ align: "end" });
  expect(working.run(align("center")).state.doc.child(1).attrs).toEqual({ align: "center" });
  expect(working.run(align("center")).state.doc.child(1).attrs).toEqual({ align: null });
});

test("a credit stands behind a picture's caption, once, and Enter goes on behind it", () => {
  const picture = schema.node("paragraph", null, [schema.node("picture", { file: "dot" }), schema.text("x")]);
  const caption = schema.node("caption", { id: "c", of: "figure" }, [schema.text("Flood")]);
  const working = new Working(doc(picture, caption), "x").run(insertCredit).type("Orla Finch");
  expect(working.text).toBe('paragraph(picture, "x"), caption("Flood"), credit("Orla Finch")');
  expect(insertCredit(working.goTo("Flood").state)).toBe(false);
  expect(working.goTo("Finch").run(enterSetApart).text).toMatch(/credit\("Orla Finch"\), paragraph$/);
  expect(insertCredit(new Working(doc(paragraph("a")), "a").state)).toBe(false);
});
