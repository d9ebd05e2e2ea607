import type { Node } from "prosemirror-model";
import type { MathElement } from "../manuscript/math.ts";
import { schema } from "../manuscript/schema.ts";
import type { SetOff } from "../manuscript/set-off.ts";
import { anchor, caption, chapter, linkTo, noteMark, text } from "./book-of-places.ts";

const web = (id: string, words: string): Node =>
  schema.text(words, [
    schema.mark("link", {
      id,
      destination: { kind: "web", address: `https://tides.hesterley.example/${id}` },
    }),
  ]);
const aligned = (align: "center" | "end", ...content: (Node | string)[]): Node =>
  schema.node("paragraph", { align }, text(...content).content);
const setOff = (kind: SetOff, ...blocks: Node[]): Node => schema.node("blockquote", { kind }, blocks);
const task = (done: boolean | null, ...blocks: Node[]): Node => schema.node("list_item", { done }, blocks);
const term = (...content: (Node | string)[]): Node =>
  schema.node("definition_term", null, text(...content).content);
const meaning = (...blocks: Node[]): Node => schema.node("definition", null, blocks);
const el = (name: MathElement["name"], ...children: (MathElement | string)[]): MathElement => ({
  name,
  children,
});

/** How long a causeway is bare: a formula with a fraction, a root, what stands above and below, and signs of Markdown. */
export const bareFor: MathElement = el(
  "math",
  el("msub", el("mi", "t"), el("mn", "0")),
  el("mo", "="),
  el(
    "mfrac",
    el("mrow", el("mn", "2"), el("mo", "*"), el("mi", "h")),
    el("msqrt", el("msup", el("mi", "g"), el("mn", "2")), el("mo", "<"), el("mi", "k")),
  ),
  el("mo", "*"),
  el("munderover", el("mo", "∑"), el("mrow", el("mi", "i"), el("mo", "="), el("mn", "1")), el("mi", "n")),
  el("mi", "sin"),
);

/** A chapter of all that is set apart from plain paragraphs, with links in each. */
export function chapterSetApart(): Node {
  const formula = (display: boolean): Node => schema.node("formula", { math: bareFor, display });
  return chapter(
    "log",
    "The Log",
    setOff("epigraph", text("Who waits is ", web("z1", "never drowned"), "."), aligned("end", "Old saying")),
    setOff(
      "verse",
      text("The ebb goes out,", schema.node("hard_break"), "the ", web("z2", "bells"), " come in;"),
      text("the second verse has ", anchor("ebb-verse", "Second verse"), "one line."),
    ),
    setOff(
      "notice",
      text("Never cross alone:"),
      schema.node("bullet_list", null, [task(null, text("ask ", web("z3", "the warden")))]),
    ),
    setOff(
      "quotation",
      text("He wrote:"),
      setOff("quotation", text("“I saw ", web("z4", "the lamp"), ".”")),
      schema.node("bullet_list", null, [task(null, text("and more"))]),
    ),
    schema.node("bullet_list", null, [
      task(true, text("Boots, from ", web("z5", "the shop"))),
      task(false, text("A pole"), text("of ash")),
      task(
        false,
        text("Food"),
        schema.node("bullet_list", null, [task(true, text("bread")), task(null, text("not a task"))]),
      ),
    ]),
    schema.node("definition_list", null, [
      term("Ebb"),
      meaning(text("The ", web("z6", "going out"), " of the water.")),
      term(web("z7", "Slack"), " water"),
      term("Stand"),
      meaning(text("When it does neither."), text("See ", linkTo("z8", "ebb-verse", "the verse"), ".")),
      meaning(text("Also a rest.")),
    ]),
    text("Before the page ends."),
    schema.node("page_break"),
    aligned("center", "In the middle, ", web("z9", "a line"), "."),
    text(schema.node("picture", { file: "dot", alt: "The flood" })),
    caption("flood", "figure", "The flood"),
    schema.node("credit", null, [schema.text("Drawn by "), web("z10", "Orla Finch")]),
    schema.node("code_block", { language: "text" }, [schema.text("signal at nine")]),
    schema.node("code_block", null, [schema.text("  and at ten\nagain")]),
    schema.node("bullet_list", null, [task(null, text("one list"))]),
    schema.node("bullet_list", null, [
      task(null, schema.node("code_block", null, [schema.text("another")])),
      task(true, setOff("notice", text("Done."))),
      task(null, schema.node("ordered_list", { start: 1 }, [task(null, text("deeper"))])),
    ]),
    text("With notes", noteMark("log-list"), " and more", noteMark("log-plain"), "."),
    text("The time ", formula(false), " is ", web("z11", "told below"), ":"),
    text(formula(true)),
    text(
      "Also ",
      schema.node("formula", { math: el("math", el("mi", "x")), display: false }, undefined, [
        schema.mark("link", {
          id: "z12",
          destination: { kind: "web", address: "https://tides.hesterley.example/x" },
        }),
      ]),
      " leads on.",
    ),
    schema.node("note", { id: "log-list" }, [
      text("What is meant:"),
      schema.node("definition_list", null, [term("Bell"), meaning(text("It ", web("z13", "rings"), "."))]),
      schema.node("ordered_list", { start: 2 }, [task(null, text("twice"))]),
      text("Last."),
    ]),
    schema.node("note", { id: "log-plain" }, [
      schema.node("bullet_list", null, [task(null, text("in ", web("z14", "fog")))]),
    ]),
  );
}
