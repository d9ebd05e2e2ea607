import { describe, expect, test } from "@jest/globals";
import {
  bookOfPlaces,
  bookWith,
  caption,
  chapter,
  heading,
  see,
  table,
  text,
} from "../test/book-of-places.ts";
import { indexOf } from "./book.ts";
import { defaultConventions } from "./conventions.ts";
import { positionOfReference, referenceWords } from "./references.ts";
import type { CrossReference } from "./attributes.ts";

const index = indexOf(bookOfPlaces());
const says = (reference: Partial<CrossReference>, hasPages = true, from = { chapter: 0, position: 0 }) =>
  referenceWords(
    { id: "r", target: "sand", form: "text", fallback: "text", ...reference },
    index,
    from,
    hasPages,
  );

describe("a cross-reference says", () => {
  test("its target's words or number", () => {
    expect(says({})).toEqual({ kind: "words", words: "What about sand?" });
    expect(says({ form: "number" })).toEqual({ kind: "words", words: "2.1.1" });
    expect(says({ form: "number", target: "bare" })).toEqual({ kind: "words", words: "Table 1" });
    expect(says({ form: "number", target: "wind" })).toEqual({ kind: "words", words: "2" });
  });

  test("its page, and where there are none what its author chose", () => {
    expect(says({ form: "page" })).toEqual({ kind: "page", before: "page ", after: "" });
    expect(says({ form: "page-and-text" })).toEqual({
      kind: "page",
      before: "What about sand? (page ",
      after: ")",
    });
    expect(says({ form: "page" }, false)).toEqual({ kind: "words", words: "What about sand?" });
    expect(says({ form: "page", fallback: "number" }, false)).toEqual({ kind: "words", words: "2.1.1" });
    // The title page carries no number.
    expect(says({ form: "page", target: "book-top" })).toEqual({ kind: "words", words: "The Causeways" });
  });

  test("above or below, over chapters and within one", () => {
    const form = "above-or-below";
    expect(says({ form })).toEqual({ kind: "words", words: "below" });
    expect(says({ form, target: "walks" }, true, { chapter: 1, position: 0 })).toMatchObject({
      words: "above",
    });
    const { position } = index.places.get("sand")!;
    expect(says({ form }, true, { chapter: 1, position: position + 1 })).toMatchObject({ words: "above" });
    expect(says({ form }, true, { chapter: 1, position: position - 1 })).toMatchObject({ words: "below" });
  });

  test("nothing, with the reason, where there is nothing to say", () => {
    expect(says({ target: "nowhere" })).toMatchObject({
      kind: "gap",
      reason: expect.stringContaining("gone"),
    });
    expect(says({ target: "asked", form: "number" })).toMatchObject({ kind: "gap" });
  });

  test("in the book's own language", () => {
    const german = indexOf(bookOfPlaces({ language: "de-AT" }));
    const inGerman = (form: CrossReference["form"], target: string) =>
      referenceWords({ id: "r", target, form, fallback: "text" }, german, { chapter: 1, position: 0 }, true);
    expect(inGerman("page", "walks")).toMatchObject({ before: "Seite " });
    expect(inGerman("number", "bare")).toMatchObject({ words: "Tabelle 1" });
    expect(inGerman("above-or-below", "walks")).toMatchObject({ words: "oben" });
  });
});

// Common practice: a cross-reference follows its target when that is moved, renamed, or others come before it.
test("follows its target through moves, new words and new neighbours", () => {
  const reference = { id: "r", target: "t", fallback: "text" as const };
  const ways = chapter("w", "Ways", table("A"), caption("t", "table", "Bare"), text(see("r", "t")));
  const tides = chapter("c", "Tides", heading("h", 1, "Low"), table("B"), caption("u", "table", "Times"));
  const number = (docs: (typeof ways)[]) =>
    referenceWords(
      { ...reference, form: "number" },
      indexOf(bookWith(docs, { conventions: { ...defaultConventions, tables: "chapter" } })),
      { chapter: 0, position: positionOfReference(ways, "r") },
      true,
    );
  expect(number([ways, tides])).toMatchObject({ words: "Table 1.1" });
  expect(number([tides, ways])).toMatchObject({ words: "Table 2.1" });
  const renamed = chapter("w", "Ways", table("A"), caption("t", "table", "How long it is bare"));
  expect(
    referenceWords(
      { ...reference, form: "text" },
      indexOf(bookWith([renamed])),
      { chapter: 0, position: 1 },
      true,
    ),
  ).toMatchObject({ words: "How long it is bare" });
});
