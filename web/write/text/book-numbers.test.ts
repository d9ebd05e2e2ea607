import { expect, test } from "@jest/globals";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { placesOf } from "@vennet/core/manuscript/outline";
import { generatedBook } from "@vennet/core/test/generated-book";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { EditorState, type Transaction } from "prosemirror-state";
import type { Decoration, DecorationSet } from "prosemirror-view";
import { bookAround, bookNumbers, changesWordsAlone, tellBookNumbers } from "./book-numbers";

const plugin = bookNumbers("c0");

function open(doc: Node): EditorState {
  const state = EditorState.create({ doc, plugins: [plugin] });
  const book = {
    title: "Book",
    language: "en",
    conventions: { ...defaultConventions, headings: 3 },
    chapters: [{ id: "c0", role: "chapter" as const, places: placesOf(doc) }],
    pageOfPlace: new Map(),
    ledTo: new Set<string>(),
  };
  return state.apply(tellBookNumbers(state.tr, { book, findings: new Map([["n", "Nothing leads here."]]) }));
}

/** What is shown, without what makes its elements. */
function shown(state: EditorState): unknown[] {
  type Inner = Decoration & { type: { attrs?: unknown; side?: number } };
  const set = plugin.props.decorations!.call(plugin, state) as DecorationSet;
  return set
    .find()
    .map((one) => {
      const { from, to, spec, type } = one as Inner;
      return { from, to, spec: spec as unknown, attrs: type.attrs, side: type.side };
    })
    .sort((a, b) => a.from - b.from || a.to - b.to || JSON.stringify(a).localeCompare(JSON.stringify(b)));
}

test("numbers and words that stay where words are typed are those of the whole text reckoned anew", () => {
  let moved = 0;
  const typing = fc.array(fc.tuple(fc.nat(100_000), fc.nat(6), fc.constantFrom("", "a", "low water ")), {
    minLength: 1,
    maxLength: 6,
  });
  fc.assert(
    fc.property(generatedBook, typing, ({ chapters }, strokes) => {
      let state = open(chapters[0]!.doc);
      for (const [where, length, words] of strokes) {
        const size = state.doc.content.size;
        const from = where % size;
        const change = typed(state, from, Math.min(size, from + length), words);
        if (!change?.docChanged) continue;
        if (changesWordsAlone(change)) moved++;
        state = state.apply(change);
        expect(shown(state)).toEqual(shown(open(state.doc)));
        expect(bookAround(state)!.index.inOrder).toEqual(bookAround(open(state.doc))!.index.inOrder);
      }
    }),
    { numRuns: 120 },
  );
  // Most of what is typed is words, and nothing is reckoned for it.
  expect(moved).toBeGreaterThan(50);
});

/** A stretch of the text with words in its place; null where no words can stand. */
function typed(state: EditorState, from: number, to: number, words: string): Transaction | null {
  try {
    return state.tr.insertText(words, from, to);
  } catch {
    return null;
  }
}
