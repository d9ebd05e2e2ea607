import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { Fragment, type Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { contextOf } from "../test/check-context.ts";
import { checkChapter } from "../checks/check-chapter.ts";
import {
  anchor,
  bookWith,
  caption,
  chapter,
  heading,
  linkTo,
  note,
  noteMark,
  see,
  signposts,
  table,
  text,
} from "../test/book-of-places.ts";
import type { BookIndex } from "./book-index.ts";
import { indexOf } from "./book.ts";
import { defaultConventions } from "./conventions.ts";
import { removeAnchor, renameAnchor, replaceInLists } from "./edit-anchors.ts";
import { giveOwnIds } from "./edit-links.ts";
import { idsIn, withFreshIds } from "./fresh-ids.ts";
import { linkUses } from "./links.ts";
import { placesOf } from "./outline.ts";
import { schema } from "./schema.ts";

const start = (): Node[] => [
  chapter(
    "c1",
    "One",
    text(anchor("a1"), "Here. ", linkTo("l1", "a2", "there"), see("r1", "h2", { form: "number" })),
    heading("h1", 1, "First"),
    text("Words", noteMark("n1"), linkTo("l2", "h2", "second")),
    table("T"),
    caption("t1", "table", "Table"),
    note("n1", "Note. ", linkTo("l3", "c2", "two")),
  ),
  chapter(
    "c2",
    "Two",
    heading("h2", 1, "Second"),
    text("More ", anchor("a2"), "words ", linkTo("l4", "a1", "back"), noteMark("n2"), see("r2", "t1")),
    heading("h3", 2, "Third"),
    signposts({ id: "s1", of: "anchors", anchors: ["a1", "a2"] }),
    note("n2", "Other."),
  ),
  chapter("c3", "Three", text("Nothing.")),
];

type Step =
  | { do: "move chapter"; from: number; to: number }
  | { do: "cut and paste" | "copy and paste"; from: number; block: number; to: number; at: number }
  | { do: "delete"; from: number; block: number }
  | { do: "rename" | "take out"; place: number };

const small = fc.nat(7);
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ do: fc.constant("move chapter" as const), from: small, to: small }),
  fc.record({
    do: fc.constantFrom("cut and paste" as const, "copy and paste" as const),
    from: small,
    block: small,
    to: small,
    at: small,
  }),
  fc.record({ do: fc.constant("delete" as const), from: small, block: small }),
  fc.record({ do: fc.constantFrom("rename" as const, "take out" as const), place: small }),
);

/** Does what the editor does: each change is followed by giving every copy an id of its own. */
function apply(docs: Node[], one: Step): Node[] {
  const changed = [...docs];
  const settle = (change: Transform, at: number): void => {
    giveOwnIds(change);
    change.doc.check();
    changed[at] = change.doc;
  };
  switch (one.do) {
    case "move chapter": {
      const [moved] = changed.splice(one.from % docs.length, 1);
      changed.splice(one.to % docs.length, 0, moved!);
      return changed;
    }
    case "delete": {
      const from = one.from % docs.length;
      const block = blockAt(docs[from]!, one.block);
      if (block) settle(new Transform(docs[from]!).delete(block.from, block.to), from);
      return changed;
    }
    case "cut and paste":
    case "copy and paste": {
      const [from, to] = [one.from % docs.length, one.to % docs.length];
      const block = blockAt(docs[from]!, one.block);
      if (!block) return docs;
      const isCut = one.do === "cut and paste";
      if (isCut) settle(new Transform(docs[from]!).delete(block.from, block.to), from);
      const here = idsIn(changed[to]!.content);
      const taken = new Set(changed.flatMap((doc) => [...idsIn(doc.content)]));
      const piece = withFreshIds(Fragment.from(block.node), (id) => (isCut ? here.has(id) : taken.has(id)));
      const place = blockAt(changed[to]!, one.at)?.from ?? changed[to]!.firstChild!.nodeSize;
      settle(new Transform(changed[to]!).insert(place, piece), to);
      return changed;
    }
    case "rename":
    case "take out": {
      const anchors = docs.flatMap((doc, at) =>
        placesOf(doc).flatMap(({ kind, id }) => (kind === "anchor" ? [{ at, id }] : [])),
      );
      const chosen = anchors[one.place % Math.max(1, anchors.length)];
      if (!chosen) return docs;
      const change = new Transform(docs[chosen.at]!);
      if (one.do === "rename") renameAnchor(change, chosen.id, `Any – ${one.place} 干潮`);
      else removeAnchor(change, chosen.id);
      settle(change, chosen.at);
      return changed;
    }
  }
}

/** A block of the text, no title and no note. */
function blockAt(doc: Node, wanted: number): { node: Node; from: number; to: number } | null {
  const blocks: { node: Node; from: number; to: number }[] = [];
  doc.forEach((node, from) => {
    if (node.type.name !== "title" && node.type.name !== "note")
      blocks.push({ node, from, to: from + node.nodeSize });
  });
  return blocks[wanted % Math.max(1, blocks.length)] ?? null;
}

/** Counted anew, in the plainest way, to compare with. */
function plainCount(docs: Node[]): Map<string, string> {
  const numbers = new Map<string, string>();
  let tables = 0;
  docs.forEach((doc, i) => {
    let [one, two] = [0, 0];
    doc.descendants((node) => {
      const id = node.attrs["id"] as string;
      if (node.type.name === "title") numbers.set(id, String(i + 1));
      if (node.type.name === "caption") numbers.set(id, String(++tables));
      if (node.type.name !== "heading" || node.textContent === "") return;
      // A heading 2 under no heading 1 counts as one, since no level may be skipped.
      if (node.attrs["level"] === 1 || one === 0) {
        numbers.set(id, `${i + 1}.${++one}`);
        two = 0;
      } else numbers.set(id, `${i + 1}.${one}.${++two}`);
    });
  });
  return numbers;
}

test("after any moves, renames, pastes and deletions no id is double, every place link resolves or is a finding, and numbers are as counted anew", () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
      const docs = steps.reduce(apply, start());
      const book = bookWith(docs, { conventions: { ...defaultConventions, headings: 3 } });
      const index = indexOf(book);
      const ids = docs.flatMap((doc) => placesOf(doc).map(({ id }) => id));
      expect(new Set(ids).size).toBe(ids.length);
      docs.forEach((doc, chapter) => {
        const links = linkUses(doc).map(({ id }) => id);
        expect(new Set(links).size).toBe(links.length);
        const context = contextOf([], { index, chapter });
        const found = new Set(checkChapter(doc, context).map(({ subject }) => subject));
        for (const { id, destination } of linkUses(doc))
          expect(
            destination.kind === "place" && (index.places.has(destination.target) || found.has(id)),
          ).toBe(true);
      });
      for (const [id, number] of plainCount(docs))
        expect([id, index.places.get(id)!.number]).toEqual([id, number]);
      expectNames(index);
    }),
    { numRuns: 300 },
  );
});

/** XML 1.0, Name (from memory): a letter first, then letters, digits, hyphens; what EPUB and PDF take as ids. */
function expectNames(index: BookIndex): void {
  for (const id of index.places.keys()) expect(id).toMatch(/^[A-Za-z][\w.-]*$/);
}

describe("a copy", () => {
  const piece = Fragment.from([
    text(anchor("a"), "x", noteMark("n"), linkTo("l", "a", "to a"), see("r", "h")),
    heading("h", 1, "H"),
    signposts({ id: "s", scope: "section", section: "h", anchors: ["a", "other"] }),
  ]);

  test("gets new ids, and what points inside it points to the new ones", () => {
    const copy = withFreshIds(piece, () => true);
    const doc = schema.node("doc", null, [schema.node("title", { id: "t" }), ...copy.content]);
    const [, a, h, s] = placesOf(doc);
    expect([...idsIn(copy)].filter((id) => idsIn(piece).has(id))).toEqual([]);
    expect(linkUses(doc).map(({ destination }) => destination)).toEqual([
      { kind: "place", target: a!.id },
      { kind: "place", target: h!.id },
    ]);
    expect(s!.list).toMatchObject({ section: h!.id, anchors: [a!.id, "other"] });
  });

  test("of which nothing is taken stays as it is", () => {
    expect(withFreshIds(piece, () => false)).toBe(piece);
  });
});

test("lists follow an anchor that is merged with another, and forget one that is gone", () => {
  const doc = chapter("c", "C", signposts({ id: "s", of: "anchors", anchors: ["a", "b"], section: "a" }));
  const after = (to: string | null) => {
    const change = new Transform(doc);
    replaceInLists(change, "a", to);
    return placesOf(change.doc)[1]!.list;
  };
  expect(after("b")).toMatchObject({ anchors: ["b"], section: "b" });
  expect(after(null)).toMatchObject({ anchors: ["b"], section: "a" });
});
