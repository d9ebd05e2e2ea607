import { expect, test } from "@jest/globals";
import { Transform } from "prosemirror-transform";
import type { Node } from "prosemirror-model";
import { anchor, chapter, text } from "../test/book-of-places.ts";
import { changeLinks, type LinkEffect } from "./change-links.ts";
import { changeLink } from "./edit-links.ts";
import { linkUses } from "./links.ts";
import { schema } from "./schema.ts";

const mark = schema.mark("link", {
  id: "l",
  destination: { kind: "web", address: "https://tides.example/" },
});
const linked = (words: string, ...marks: string[]): Node =>
  schema.text(words, [mark, ...marks.map((name) => schema.mark(name))]);
const picture = schema.node("picture", { file: "p", alt: "Logo" }, undefined, [mark]);

/** What a paragraph is then, `[` and `]` around what is linked, `*` around what is emphasised, `P` and `A` for what is no words. */
function shown(doc: Node): string {
  let out = "";
  doc.lastChild!.forEach((node) => {
    const words = node.isText ? node.text! : node.type.name === "picture" ? "P" : "A";
    const told = node.marks.some(({ type }) => type.name === "emphasis") ? `*${words}*` : words;
    out += node.marks.some(({ type }) => type.name === "link") ? `[${told}]` : told;
  });
  return out;
}

/** The same change by itself, and among many. */
function after(effect: Exclude<LinkEffect, "remove" | null>, ...content: (Node | string)[]): string {
  const doc = chapter("c", "C", text(...content));
  const { doc: among } = changeLinks(doc, () => effect);
  const change = new Transform(doc);
  changeLink(change, linkUses(doc)[0]!, effect);
  expect(change.doc.toJSON()).toEqual(among.toJSON());
  among.check();
  return shown(among);
}

test("words that stay keep their emphasis, and new ones get that of what they replace", () => {
  const content = ["See ", linked("the "), linked("tide", "emphasis"), linked(" office"), " now."];
  expect(after({ text: "the tide tables" }, ...content)).toBe("See [the ][*tide*][ tables] now.");
  expect(after({ text: "the ebb office" }, ...content)).toBe("See [the ][*ebb*][ office] now.");
  expect(after({ text: "our tide office" }, ...content)).toBe("See [our ][*tide*][ office] now.");
});

test("pictures and anchors stay, whatever is done to the words beside them", () => {
  const content = ["See ", picture, linked(" the "), anchor("a").mark([mark]), linked("office"), "."];
  expect(after({ text: "Logo the harbour" }, ...content)).toBe("See [P][ the ][A][harbour].");
  expect(after({ text: "tables" }, ...content)).toMatch(/^See (?=.*\[P\])(?=.*\[A\])(?=.*tables).*\.$/);
  expect(after({ text: "Logo" }, ...content)).toBe("See [P][A].");
});

test("blanks at the ends are given up to the text, and stand there once", () => {
  expect(after({ trim: true }, "See ", linked("the office "), "first.")).toBe("See [the office] first.");
  expect(after({ trim: true }, "See", linked(" the office"), " first.")).toBe("See [the office] first.");
  expect(after({ trim: true }, "See ", linked(" the office "), " first.")).toBe("See [the office] first.");
  expect(after({ trim: true }, linked(" the office "))).toBe("[the office]");
  expect(after({ trim: true }, "See ", linked(" "), picture, linked(" "), "first.")).toBe(
    "See [ ][P][ ]first.",
  );
});
