import { describe, expect, test } from "@jest/globals";
import { indexOf } from "../manuscript/book.ts";
import { noFrame, type Hotspot, type Point } from "../manuscript/hotspot.ts";
import type { PictureAttrs } from "../manuscript/attributes.ts";
import { schema } from "../manuscript/schema.ts";
import type { Destination } from "../destination/kinds/kinds.ts";
import {
  anchor,
  bookOfPlaces,
  caption,
  chapter,
  note,
  noteMark,
  see,
  signposts,
  table,
  text,
} from "../test/book-of-places.ts";
import { contextOf } from "../test/check-context.ts";
import { checkChapter, rules } from "./check-chapter.ts";

const context = contextOf([chapter("h", "Low water"), chapter("page", "Refuges")], {
  files: new Map([["kept", { name: "plan.pdf", mediaType: "application/pdf", size: 180_000 }]]),
  unwritten: new Set(["page"]),
});
const web: Destination = { kind: "web", address: "https://tides.example/" };
const chapterOf = (
  ...content: Parameters<typeof schema.node>[2] extends infer C ? NonNullable<C>[] : never
) =>
  schema.node("doc", null, [
    schema.node("title", { id: "t" }),
    schema.node("paragraph", null, content as never),
  ]);
const link = (words: string, destination: Destination) =>
  chapterOf(schema.text(words, [schema.mark("link", { id: "l", destination })]));
const found = (doc: ReturnType<typeof chapterOf>) =>
  checkChapter(doc, context).map(({ rule, subject }) => `${rule} ${subject}`);

test.each([
  ["sound web link", "the office", web, []],
  ["companion file that is gone", "plan", { kind: "file", file: "gone" }, ["file-gone l"]],
  ["companion file that is there", "plan (PDF)", { kind: "file", file: "kept" }, ["file-foreign l"]],
  ["file beside the manuscript", "plan", { kind: "file", path: "plan.pdf" }, ["file-not-brought l"]],
  ["shared file", "plan", { kind: "file", share: "https://drive.example/s/1" }, []],
  ["place", "low water", { kind: "place", target: "h" }, []],
  ["place that is gone", "low water", { kind: "place", target: "x" }, ["place-gone l"]],
  ["unwritten page", "refuges", { kind: "place", target: "page" }, ["page-unwritten l"]],
  ["raw address as words", "www.tides.example/today", web, ["raw-address l"]],
  ["blank words", "  ", web, ["no-name l"]],
  // Where axe-core hears a name: letters without a shape are none to whoever looks.
  ["words that nobody sees", "\u2060\u200b\u00ad", web, ["no-name l"]],
] as [string, string, Destination, string[]][])("%s", (_what, words, destination, expected) => {
  expect(found(link(words, destination))).toEqual(expected);
});

test("a link is judged anew when it changes, and not for what changes around it", () => {
  // Destination and id stay the same objects through an edit, as in an editor.
  const to: Destination = { kind: "web", address: "https://tides.example/?utm_source=leaf" };
  const marked = (words: string, more = {}) =>
    chapterOf(schema.text(words, [schema.mark("link", { id: "l", destination: to, ...more })]));
  expect(found(marked("the tables"))).toEqual(["tracking-part l"]);
  expect(found(marked("the tables "))).toEqual(["outer-blank l", "tracking-part l"]);
  expect(found(marked("the tables", { asText: true }))).toEqual(["tracking-part l", "looks-like-text l"]);
  const faint = { colour: "#eeeeee", underline: "none", bold: false };
  expect(found(marked("the tables", { look: faint }))).toEqual(["tracking-part l", "own-look l"]);
  const later = { ...to, address: "https://tides.example/" };
  expect(found(marked("the tables", { destination: later }))).toEqual([]);
  const moved = marked("the tables");
  const paragraph = schema.node("paragraph", null, [schema.text("A new beginning.")]);
  expect(found(moved.copy(moved.content.replaceChild(0, moved.child(0)).addToEnd(paragraph)))).toEqual([
    "tracking-part l",
  ]);
});

describe("pictures", () => {
  const spot = (id: string, alt: string, ...points: Point[]): Hotspot => ({
    id,
    alt,
    points,
    shape: "rectangle",
    destination: web,
    description: null,
    frame: noFrame,
  });
  const picture = (attrs: Partial<PictureAttrs>) =>
    schema.node("picture", { file: "f", alt: "Chart", ...attrs });

  // ACT rule c487ae and failure F89 (from memory): an image link needs a text alternative.
  test("a picture link or hotspot without a text alternative has no name", () => {
    const linked = picture({ alt: "" }).mark([schema.mark("link", { id: "l", destination: web })]);
    expect(found(chapterOf(linked))).toEqual(["no-name l"]);
    expect(found(chapterOf(picture({ hotspots: [spot("s", "", [0, 0], [1, 1])] })))).toEqual(["no-name s"]);
  });

  test("covered and overlapping hotspots are told apart; touching ones are none", () => {
    const hotspots = [
      spot("a", "Refuge", [0, 0], [0.2, 0.2]),
      spot("b", "Pier", [0.2, 0], [0.4, 0.2]),
      spot("c", "Sound", [0.3, 0], [0.5, 0.2]),
    ];
    const messages = (list: Hotspot[]) =>
      checkChapter(chapterOf(picture({ hotspots: list })), context).map(({ subject, message }) => [
        subject,
        message,
      ]);
    expect(messages(hotspots)).toEqual([["b", expect.stringContaining("50 %")]]);
    expect(
      messages([...hotspots, spot("d", "All", [0, 0], [1, 1])]).map(([id, message]) => [
        id,
        /covered by/.test(message!),
      ]),
    ).toEqual([
      ["a", true],
      ["b", true],
      ["c", true],
    ]);
  });
});

describe("what follows from places", () => {
  const findings = (doc: ReturnType<typeof chapter>, headings = 0) => {
    const book = bookOfPlaces();
    const index = indexOf({
      ...book,
      chapters: [...book.chapters, { id: "c", role: "chapter" as const, doc }],
      conventions: { ...book.conventions, headings },
    });
    return checkChapter(doc, { ...context, index, chapter: book.chapters.length }).map(
      ({ rule, subject, message }) => [rule, subject, message] as const,
    );
  };
  const rulesAt = (doc: ReturnType<typeof chapter>) =>
    findings(doc).map(([rule, subject]) => [rule, subject]);

  test("a note without reference and a reference without note are told, others not", () => {
    const doc = chapter(
      "c",
      "C",
      text("a", noteMark("n1"), noteMark("gone")),
      note("n1", "x"),
      note("n2", "y"),
    );
    expect(rulesAt(doc)).toEqual([
      ["note-gone", "gone"],
      ["note-alone", "n2"],
    ]);
  });

  test("a cross-reference whose target is gone or has no number is told", () => {
    const doc = chapter(
      "c",
      "C",
      text(see("r1", "gone"), see("r2", "way", { form: "number" }), see("r3", "way"), see("r4", "bare")),
      text(see("r5", "way", { form: "page", fallback: "number" })),
    );
    expect(rulesAt(doc)).toEqual([
      ["place-gone", "r1"],
      ["reference-gap", "r2"],
      ["reference-gap", "r5"],
    ]);
    expect(findings(doc, 2).map(([, subject]) => subject)).toEqual(["r1"]);
    expect(findings(doc)[2]![2]).toContain("where there are no pages");
  });

  test("a list that lists nothing, or whose section or anchors are gone, is told", () => {
    const list = (id: string, more: object) => signposts({ id, ...more });
    const doc = chapter(
      "c",
      "C",
      text(anchor("here"), "words"),
      list("l1", { of: "figures" }),
      list("l2", { scope: "section", section: "gone" }),
      list("l3", { of: "anchors", anchors: ["here", "gone"] }),
      list("l4", { of: "tables" }),
      list("l5", { of: "anchors", anchors: ["here"] }),
    );
    expect(rulesAt(doc)).toEqual([
      ["signposts-empty", "l1"],
      ["signposts-empty", "l2"],
      ["signposts-empty", "l3"],
    ]);
  });

  test("a caption beside nothing is told", () => {
    const doc = chapter(
      "c",
      "C",
      caption("k1", "table", "before"),
      table("Bare"),
      text("words"),
      caption("k2", "figure", "alone"),
    );
    expect(rulesAt(doc)).toEqual([["caption-alone", "k2"]]);
  });

  test("a link that looks like text is told", () => {
    const mark = schema.mark("link", { id: "l", destination: web, asText: true });
    expect(found(chapterOf(schema.text("words", [mark])))).toEqual(["looks-like-text l"]);
  });
});

test("every rule names its source", () => {
  expect(new Set(rules.map(({ id }) => id)).size).toBe(rules.length);
  for (const rule of rules)
    expect(rule.source).toMatch(/WCAG|EPUB|DPUB-ARIA|HTML|RFC|ISO|UTS|OWASP|public suffix|common practice/);
});
