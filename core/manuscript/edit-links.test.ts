import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { bringIn } from "../test/sample-book.ts";
import { changeLink, giveOwnIds, linkRange, linkRanges, unlink, withoutOuterBlanks } from "./edit-links.ts";
import { noFrame, type Hotspot } from "./hotspot.ts";
import { linkUses } from "./links.ts";
import { schema } from "./schema.ts";

const web = (path: string) => ({ kind: "web" as const, address: `https://tides.example/${path}` });
const chapter = (markdown: string): Node => bringIn(markdown).chapters[0]!;
const texts = (doc: Node) => linkUses(doc).map(({ text }) => text);
const find = (doc: Node, words: string): { from: number; to: number } => {
  let from = -1;
  doc.descendants((node, position) => {
    const at = node.isText ? node.text!.indexOf(words) : -1;
    if (from === -1 && at !== -1) from = position + at;
  });
  return { from, to: from + words.length };
};

describe("a link is one link", () => {
  const doc = chapter("# T\n\nThe **tide** office knows.\n\nIt never sleeps.\n\nNobody does.");

  test("over bold and plain words", () => {
    const change = new Transform(doc);
    linkRange(change, find(doc, "The ").from, find(doc, " knows.").to, { destination: web("") });
    expect(texts(change.doc)).toEqual(["The tide office knows."]);
  });

  test("across paragraphs, with a part in each", () => {
    const change = new Transform(doc);
    linkRange(change, find(doc, " office").from + 1, find(doc, "It never").to, { destination: web("") });
    const [use, ...more] = linkUses(change.doc);
    expect(more).toEqual([]);
    expect(use!.parts.map(({ text }) => text)).toEqual(["office knows.", "It never"]);
    const before = change.steps.length;
    giveOwnIds(change);
    expect(change.steps).toHaveLength(before);

    changeLink(change, use!, { destination: web("moved") });
    expect(linkUses(change.doc)).toMatchObject([{ id: use!.id, destination: web("moved"), parts: [{}, {}] }]);
    unlink(change, linkUses(change.doc)[0]!);
    expect(change.doc.eq(doc)).toBe(true);
  });

  test("with the same id further on it is another, and gets an id of its own", () => {
    const change = new Transform(doc);
    const mark = schema.mark("link", { id: "same", destination: web("") });
    for (const words of ["tide", "never", "does"]) {
      const { from, to } = find(doc, words);
      change.addMark(from, to, mark);
    }
    giveOwnIds(change);
    const ids = linkUses(change.doc).map(({ id }) => id);
    expect(ids[0]).toBe("same");
    expect(new Set(ids).size).toBe(3);
  });

  test("one that is put over others ends those inside, and leaves the rest of those that reach in", () => {
    const change = new Transform(doc);
    for (const words of ["It", "never sleeps"]) {
      const { from, to } = find(doc, words);
      linkRange(change, from, to, { destination: web(words) });
    }
    linkRange(change, find(doc, "It").from, find(doc, "never").to, { destination: web("new") });
    expect(linkUses(change.doc).map(({ text, destination }) => [text, destination])).toEqual([
      ["It never", web("new")],
      ["sleeps", web("never sleeps")],
    ]);
  });

  test("one on the middle of another leaves both ends, without the blanks between", () => {
    const change = new Transform(doc);
    const { from, to } = find(doc, "It never sleeps");
    const id = linkRange(change, from, to, { destination: web("old"), description: "By day" });
    const middle = find(doc, "never");
    linkRange(change, middle.from, middle.to, { destination: web("new") });
    const uses = linkUses(change.doc);
    expect(uses.map(({ text, destination, description }) => [text, destination, description])).toEqual([
      ["It", web("old"), "By day"],
      ["never", web("new"), null],
      ["sleeps", web("old"), "By day"],
    ]);
    expect(uses[0]!.id).toBe(id);
    expect(new Set(uses.map((use) => use.id)).size).toBe(3);
  });
});

test("the words of a link are changed without its destination, and those of a picture are its alternative", () => {
  const doc = chapter("# T\n\nSee [the **old** pier](https://tides.example/pier) now.");
  const change = new Transform(doc);
  changeLink(change, linkUses(doc)[0]!, { text: "the new pier", description: "Plan" });
  expect(linkUses(change.doc)).toMatchObject([
    { text: "the new pier", description: "Plan", destination: web("pier") },
  ]);
  expect(change.doc.lastChild!.textContent).toBe("See the new pier now.");

  const picture = schema.node("picture", { file: "f", alt: "A pier" });
  const withPicture = schema.node("doc", null, [
    schema.node("title", { id: "t" }),
    schema.node("paragraph", null, [
      picture.mark([schema.mark("link", { id: "p", destination: web("pier") })]),
    ]),
  ]);
  const second = new Transform(withPicture);
  expect(linkUses(withPicture)).toMatchObject([{ on: "picture", text: "A pier" }]);
  changeLink(second, linkUses(withPicture)[0]!, { text: "The old pier" });
  expect(linkUses(second.doc)).toMatchObject([{ on: "picture", text: "The old pier" }]);
});

test("a hotspot is a link: changed, taken away, and given an id of its own in a copy", () => {
  const hotspot: Hotspot = {
    id: "spot",
    shape: "rectangle",
    points: [
      [0.1, 0.1],
      [0.2, 0.2],
    ],
    destination: web("refuge"),
    alt: "Refuge",
    description: null,
    frame: noFrame,
  };
  const picture = schema.node("picture", { file: "f", hotspots: [hotspot] });
  const doc = schema.node("doc", null, [
    schema.node("title", { id: "t" }),
    schema.node("paragraph", null, [schema.text("See "), picture, picture]),
  ]);
  doc.check();
  const change = new Transform(doc);
  giveOwnIds(change);
  const [first, second] = linkUses(change.doc);
  expect(first).toMatchObject({ id: "spot", on: "hotspot", text: "Refuge" });
  expect(second!.id).not.toBe("spot");
  changeLink(change, second!, { destination: web("other"), text: "Other" });
  expect(linkUses(change.doc)).toMatchObject([
    { text: "Refuge" },
    { text: "Other", destination: web("other") },
  ]);
  unlink(change, linkUses(change.doc)[0]!);
  expect(texts(change.doc)).toEqual(["Other"]);
});

test("a hotspot outside its picture or with an unsafe destination is refused", () => {
  const make = (more: object) => () =>
    schema
      .node("picture", {
        hotspots: [
          {
            id: "a",
            shape: "rectangle",
            points: [
              [0, 0],
              [1, 1],
            ],
            alt: "",
            description: null,
            frame: noFrame,
            destination: web(""),
            ...more,
          },
        ],
      })
      .check();
  expect(make({})).not.toThrow();
  expect(
    make({
      points: [
        [0, 0],
        [1.2, 1],
      ],
    }),
  ).toThrow(RangeError);
  expect(make({ shape: "polygon" })).toThrow(RangeError);
  expect(make({ frame: { line: "solid", thickness: 1, colour: "red;}" } })).toThrow(RangeError);
  expect(make({ destination: { kind: "web", address: "javascript:alert(1)" } })).toThrow();
});

test("linking any range and unlinking it again gives the same document; ids stay unique", () => {
  const doc = chapter(
    "# T\n\nThe **tide** office *knows the* hours.\n\n- one `code` item\n- another\n\n> quoted words\n\n| a | b |\n|---|---|\n| c | d |\n",
  );
  const position = fc.nat(doc.content.size);
  fc.assert(
    fc.property(position, position, (a, b) => {
      const { from, to } = withoutOuterBlanks(doc, Math.min(a, b), Math.max(a, b));
      const change = new Transform(doc);
      const id = linkRange(change, from, to, { destination: web("") });
      giveOwnIds(change);
      change.doc.check();
      const uses = linkUses(change.doc);
      expect(new Set(uses.map((use) => use.id)).size).toBe(uses.length);
      expect(uses.length > 0).toBe(id !== null);
      for (const use of linkUses(change.doc)) unlink(change, use);
      expect(change.doc.eq(doc)).toBe(true);
    }),
  );
});

test("many ranges are linked at once as each would be by itself, whatever links are in their way", () => {
  const doc = chapter(
    "# T\n\nThe [tide office](https://a.example/) *knows [the](https://b.example/)* hours of low water.\n\n- one [item](https://c.example/)\n- another\n",
  );
  const position = fc.nat(doc.content.size);
  const withoutIds = (node: Node): unknown =>
    JSON.parse(JSON.stringify(node.toJSON()).replaceAll(/"id":"[^"]*"/g, '"id":""')) as unknown;
  fc.assert(
    fc.property(fc.array(fc.tuple(position, position), { minLength: 1, maxLength: 6 }), (drawn) => {
      const ranges = drawn
        .map(([a, b], i) => ({ from: Math.min(a, b), to: Math.max(a, b) + 1, destination: web(String(i)) }))
        .map((range) => ({ ...range, to: Math.min(range.to, doc.content.size) }))
        .filter(({ from, to }) => from < to)
        .sort((a, b) => a.from - b.from);
      const change = new Transform(doc);
      for (const { from, to, destination } of ranges) {
        const around = linkUses(change.doc).find((use) => use.from <= from && to <= use.to);
        if (around) changeLink(change, around, { destination });
        else linkRange(change, from, to, { destination, description: "By day" });
      }
      giveOwnIds(change);
      expect(withoutIds(linkRanges(doc, ranges, "By day"))).toEqual(withoutIds(change.doc));
    }),
    { numRuns: 500 },
  );
  expect(() => linkRanges(doc, [{ from: 3, to: doc.content.size + 1, destination: web("") }], null)).toThrow(
    expect.objectContaining({ code: "range" }),
  );
});

describe("words of a link that stay keep their marks", () => {
  const doc = chapter("# T\n\nAsk [the **tide** office *by day*](https://tides.example/) now.");
  const changed = (words: string): unknown[] => {
    const change = new Transform(doc);
    changeLink(change, linkUses(doc)[0]!, { text: words });
    expect(linkUses(change.doc).map(({ text, id }) => [text, id])).toEqual([[words, linkUses(doc)[0]!.id]]);
    const found: unknown[] = [];
    change.doc.child(1).forEach((node) => {
      const marks = node.marks.map(({ type }) => type.name).filter((name) => name !== "link");
      if (node.marks.some(({ type }) => type.name === "link")) found.push([node.text, ...marks]);
    });
    return found;
  };

  test("when one of them is exchanged, put in, or taken out", () => {
    expect(changed("the **tide** office at night".replaceAll("*", ""))).toEqual([
      ["the "],
      ["tide", "strong"],
      [" office "],
      ["at night", "emphasis"],
    ]);
    expect(changed("Ask the tide office by day")[0]).toEqual(["Ask the "]);
    expect(changed("the office by day")).toEqual([["the office "], ["by day", "emphasis"]]);
    expect(changed("the flood office by day")).toEqual([
      ["the "],
      ["flood", "strong"],
      [" office "],
      ["by day", "emphasis"],
    ]);
  });

  test("whatever the new words are, they are the link's and nothing else changes", () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[a-d ]{1,12}[a-d]$/), (words) => {
        const change = new Transform(doc);
        changeLink(change, linkUses(doc)[0]!, { text: words });
        change.doc.check();
        expect(texts(change.doc)).toEqual([words]);
        expect(change.doc.textContent).toBe(`TAsk ${words} now.`);
      }),
    );
  });
});
