import { expect, test } from "@jest/globals";
import { linkUses } from "@vennet/core/manuscript/links";
import { placesOf } from "@vennet/core/manuscript/outline";
import { schema } from "@vennet/core/manuscript/schema";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import fc from "fast-check";
import { baseKeymap, joinBackward, joinForward, lift, toggleMark, wrapIn } from "prosemirror-commands";
import { closeHistory, history, redo, redoDepth, undo, undoDepth } from "prosemirror-history";
import type { Node } from "prosemirror-model";
import { liftListItem, sinkListItem, splitListItem, wrapInList } from "prosemirror-schema-list";
import { EditorState, NodeSelection, TextSelection, type Command, type Selection } from "prosemirror-state";
import { addRowAfter, CellSelection, tableEditing } from "prosemirror-tables";
import { formerIds, makeHeading, makeListing, makeParagraph, stepHeading } from "./block-kinds";
import { bookNumbers } from "./book-numbers";
import {
  insertAnchor,
  insertCaption,
  insertNote,
  insertPageBreak,
  insertSectionBreak,
  insertSignposts,
  insertTable,
} from "./insert-commands";
import { editLink, linkWords, removeLink } from "./link-commands";
import { linkEnds } from "./link-ends";
import { linkAtSelection, linkMarks } from "./link-marks";
import { madeAnchor } from "./made-anchor";
import { selectedNodes } from "./selected-nodes";
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
import { uniqueIds } from "./unique-ids";
import { wordsTypedOver } from "./words-typed-over";

const { bullet_list, ordered_list, blockquote, list_item } = schema.nodes;
const destination = { kind: "web" as const, address: "https://tides.hesterley.example/new" };

/** What changes the look or the order of things, and takes no word away. */
const keeping: Record<string, Command> = {
  bold: toggleMark(schema.marks.strong!),
  italic: toggleMark(schema.marks.emphasis!),
  heading: makeHeading(2),
  paragraph: makeParagraph,
  listing: makeListing,
  "heading deeper": stepHeading(1),
  "heading higher": stepHeading(-1),
  bullets: wrapInList(bullet_list!),
  numbers: wrapInList(ordered_list!),
  quote: wrapIn(blockquote!),
  lift,
  "lift item": liftListItem(list_item!),
  "sink item": sinkListItem(list_item!),
  verse: setOffAs("verse"),
  notice: setOffAs("notice"),
  "set off no more": setOffNoMore,
  tasks: makeTasks,
  done: setTask(true),
  middle: align("center"),
  "row below": addRowAfter,
  "join before": joinBackward,
  "join behind": joinForward,
};
/** What puts something in; of what is selected some may give way. */
const changing: Record<string, Command> = {
  anchor: insertAnchor,
  note: insertNote,
  table: insertTable,
  caption: insertCaption,
  "section break": insertSectionBreak,
  signposts: insertSignposts("Contents"),
  "page break": insertPageBreak,
  credit: insertCredit,
  definitions: insertDefinitions,
  "Enter set apart": enterSetApart,
  // What is selected gives way to it, as to Enter.
  "split item": splitListItem(list_item!),
  Enter: baseKeymap["Enter"]!,
  Backspace: baseKeymap["Backspace"]!,
  type: (state, dispatch) => {
    dispatch?.(state.tr.insertText("ebb"));
    return true;
  },
  link: (state, dispatch) => {
    const { from, to } = state.selection;
    if (from < to) dispatch?.(linkWords(state, from, to, { destination, description: null }));
    return true;
  },
  "change link": (state, dispatch) => {
    const use = linkAtSelection(state);
    if (use) dispatch?.(editLink(state, use, { destination, text: "the new tables" }));
    return true;
  },
  "remove link": (state, dispatch) => {
    const use = linkAtSelection(state);
    if (use) dispatch?.(removeLink(state, use));
    return true;
  },
};
const commands = { ...keeping, ...changing };

const book = bookOfEveryFeature();
const stateOf = (doc: Node) =>
  EditorState.create({
    doc,
    plugins: [
      history({ depth: 1000 }),
      tableEditing(),
      wordsTypedOver,
      uniqueIds,
      formerIds,
      madeAnchor,
      selectedNodes,
      linkEnds,
      linkMarks,
      bookNumbers("chapter-0"),
    ],
  });
const run = (state: EditorState, command: Command): EditorState => {
  let next = state;
  command(state, (change) => (next = next.apply(change)));
  return next;
};
/** Something that is selected as a whole, so far into a document; null where nothing can be. */
const wholeAt = (doc: Node, share: number): Selection | null => {
  const at = startsOf(doc, (node) => !node.isText && NodeSelection.isSelectable(node));
  return at.length > 0 ? NodeSelection.create(doc, at[Math.floor(share * (at.length - 1))]!) : null;
};
/** A row of cells and the one below, so far into a document; null where there is no table. */
const cellsAt = (doc: Node, share: number): Selection | null => {
  const at = startsOf(doc, ({ type }) => type.spec["tableRole"] === "cell");
  const cell = at[Math.floor(share * (at.length - 1))];
  if (cell === undefined) return null;
  const table = doc.resolve(cell).before(-1);
  const last = at.findLast((one) => doc.resolve(one).before(-1) === table)!;
  return CellSelection.create(doc, cell, last);
};
const startsOf = (doc: Node, isWanted: (node: Node) => boolean): number[] => {
  const found: number[] = [];
  doc.descendants((node, position) => {
    if (isWanted(node)) found.push(position);
  });
  return found;
};
const linkIds = (doc: Node): string[] => linkUses(doc).map(({ id }) => id);
const placeIds = (doc: Node): string[] => placesOf(doc).map(({ id }) => id);
// Lines of a listing are one line of a paragraph.
const letters = (doc: Node): string => doc.textContent.replace(/\s/g, "");
const unique = (ids: string[]): boolean => new Set(ids).size === ids.length;

// ProseMirror's own history is the measure of what was done; what is checked is that nothing of ours is lost beside it.
test("after any commands undo gives the first document and redo the last; ids are unique, and none is lost", () => {
  const step = fc.record({
    command: fc.constantFrom(...Object.keys(commands)),
    from: fc.double({ min: 0, max: 1, noNaN: true }),
    length: fc.nat(40),
    // Words; a picture, a line between sections, an anchor or a whole block; cells of a table.
    what: fc.constantFrom("words", "words", "whole", "cells"),
  });
  fc.assert(
    fc.property(
      fc.nat(book.chapters.length - 1),
      fc.array(step, { minLength: 1, maxLength: 12 }),
      (i, steps) => {
        const first = book.chapters[i]!.doc;
        let state = stateOf(first);
        for (const { command, from, length, what } of steps) {
          const at = Math.round(from * state.doc.content.size);
          const { doc } = state;
          const end = Math.min(doc.content.size, at + length);
          const selection =
            what === "whole"
              ? wholeAt(doc, from)
              : what === "cells"
                ? cellsAt(doc, from)
                : TextSelection.between(doc.resolve(at), doc.resolve(end));
          if (!selection) continue;
          state = state.apply(closeHistory(state.tr.setSelection(selection)));
          const before = state.doc;
          state = run(state, commands[command]!);
          state.doc.check();
          expect(unique(linkIds(state.doc)) && unique(placeIds(state.doc))).toBe(true);
          if (command in keeping) {
            expect(linkIds(state.doc)).toEqual(expect.arrayContaining(linkIds(before)));
            expect(letters(state.doc)).toBe(letters(before));
          }
        }
        const last = state.doc;
        while (undoDepth(state) > 0) state = run(state, undo);
        expect(state.doc.eq(first)).toBe(true);
        while (redoDepth(state) > 0) state = run(state, redo);
        expect(state.doc.eq(last)).toBe(true);
      },
    ),
    { numRuns: 400 },
  );
});
