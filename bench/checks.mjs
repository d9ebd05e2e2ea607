import { checkBook } from "@vennet/core/checks/check-book";
import { checkChapter } from "@vennet/core/checks/check-chapter";
import { contextIn, nothingKnown, surroundingsOf, withOpenChapter } from "@vennet/core/checks/surroundings";
import { schema } from "@vennet/core/manuscript/schema";
import { seededBook, seededBookOf } from "./seeded-book.mjs";
import { inTurns } from "./spread.mjs";

// All rules over books of three sizes, and over the open chapter after an edit, each beside one bare walk over the same
// documents that reads every link.

const rounds = 9;

function walk(docs) {
  let letters = 0;
  for (const doc of docs) {
    doc.descendants((node) => {
      for (const { type, attrs } of node.marks) {
        if (type.name === "link") letters += node.text?.length + (attrs.destination.address?.length ?? 0);
      }
    });
  }
  return letters;
}

/** The chapter with a letter typed at the start of its first paragraph. */
function typedInto(doc) {
  const at = doc.children.findIndex(({ type }) => type.name === "paragraph");
  const paragraph = doc.child(at);
  const typed = paragraph.copy(paragraph.content.addToStart(schema.text("a")));
  return doc.copy(doc.content.replaceChild(at, typed));
}

for (const chapters of [4, 40, 120]) {
  const book = seededBook({ chapters, words: 10_000, links: 500 });
  const docs = book.chapters.map(({ doc }) => doc);
  const stored = docs.map((doc) => doc.toJSON());
  let found = 0;
  const { bare, rules } = inTurns(
    rounds,
    {
      bare: (read) => walk(read.chapters.map(({ doc }) => doc)),
      rules: (read) => (found = checkBook(read, nothingKnown).length),
    },
    // Read anew, as whoever checks a book reads it: nothing is known of its links yet.
    () => seededBookOf(stored.map((json) => schema.nodeFromJSON(json))),
  );
  const told = surroundingsOf(book, nothingKnown);
  const middle = chapters >> 1;
  let doc = docs[middle];
  const { one, edit } = inTurns(rounds * 3, {
    one: () => walk([doc]),
    edit: () => {
      doc = typedInto(doc);
      checkChapter(doc, contextIn(withOpenChapter(told, middle, doc), middle));
    },
  });
  console.log(`All rules over a book of ${chapters * 500} links, with ${found} findings`);
  console.log(`  ${rules}, a bare walk ${bare}: ratio ${rules.over(bare)} (aim: at most 25)`);
  console.log(
    `  its open chapter after a letter: ${edit}, a walk over it ${one}: ratio ${edit.over(one)} (aim: at most 2)`,
  );
}
