import { indexOf } from "@vennet/core/manuscript/book";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { linkUses } from "@vennet/core/manuscript/links";
import { defaultLooks } from "@vennet/core/manuscript/looks";
import { referenceWords } from "@vennet/core/manuscript/references";
import { referenceAttrs } from "@vennet/core/manuscript/attributes";
import { schema } from "@vennet/core/manuscript/schema";

// Renumbering a book of 40 chapters, 2,000 cross-references and 600 notes after one heading is moved, beside
// one bare walk over its documents, in one run.

const chapters = 40;
const rounds = 30;
const words = (n) =>
  Array.from({ length: n }, (_, i) => ["tide", "stone", "sand", "wind", "mark"][i % 5]).join(" ");
const median = (times) => [...times].sort((a, b) => a - b)[times.length >> 1];

function chapter(c) {
  const blocks = [];
  const notes = [];
  for (let h = 0; h < 10; h++) {
    blocks.push(
      schema.node("heading", { id: `h-${c}-${h}`, level: 1 + (h % 3) }, [schema.text(`Stretch ${c}-${h}`)]),
    );
    for (let p = 0; p < 5; p++) {
      const form = ["text", "number", "page", "page-and-text", "above-or-below"][p];
      const target = `h-${(c * 7 + p * 11 + h) % chapters}-${(h + p) % 10}`;
      const reference = schema.node("cross_reference", { id: `r-${c}-${h}-${p}`, target, form });
      blocks.push(
        schema.node("paragraph", null, [schema.text(words(60)), reference, schema.text(words(20))]),
      );
    }
  }
  for (let n = 0; n < 15; n++) {
    const id = `n-${c}-${n}`;
    const at = 1 + n * 3;
    const mark = schema.node("note_reference", { note: id });
    blocks[at] = blocks[at].copy(blocks[at].content.addToEnd(mark));
    notes.push(schema.node("note", { id }, [schema.node("paragraph", null, [schema.text(words(12))])]));
  }
  const title = schema.node("title", { id: `c-${c}` }, [schema.text(`Causeway ${c}`)]);
  return schema.node("doc", null, [title, ...blocks, ...notes]);
}

/** Every number, and the words of every cross-reference, as the book is now. */
function refresh(docs) {
  const index = indexOf({
    title: "All causeways",
    language: "en",
    conventions: { ...defaultConventions, headings: 4, notes: "book" },
    looks: defaultLooks,
    chapters: docs.map((doc, i) => ({ id: String(i), role: "chapter", doc })),
  });
  let said = 0;
  docs.forEach((doc, chapter) => {
    for (const use of linkUses(doc)) {
      if (use.on !== "reference") continue;
      const reference = referenceAttrs(doc.nodeAt(use.from));
      referenceWords(reference, index, { chapter, position: use.from }, true);
      said++;
    }
  });
  return { said, notes: index.inOrder.filter(({ kind }) => kind === "note").length };
}

function walk(docs) {
  let nodes = 0;
  for (const doc of docs) doc.descendants(() => void nodes++);
  return nodes;
}

/** The same documents as new ones, of which nothing is known yet. */
const fresh = (docs) => docs.map((doc) => schema.nodeFromJSON(doc.toJSON()));
/** The book with the last heading of its first chapter moved to the chapter's beginning. */
function moved(docs) {
  const [first] = docs;
  const at = first.children.findLastIndex(({ type }) => type.name === "heading");
  const content = first.children.filter((_, i) => i !== at);
  content.splice(1, 0, first.child(at));
  return [first.type.create(null, content), ...docs.slice(1)];
}
const timed = (work) => {
  const started = performance.now();
  work();
  return performance.now() - started;
};

const docs = Array.from({ length: chapters }, (_, c) => chapter(c));
const { said, notes } = refresh(docs);
const times = { whole: [], edit: [], walk: [] };
for (let i = 0; i < rounds; i++) {
  const book = fresh(docs);
  times.walk.push(timed(() => walk(book)));
  times.whole.push(timed(() => refresh(book)));
  const next = moved(book);
  times.edit.push(timed(() => refresh(next)));
}
const [whole, edit, bare] = [median(times.whole), median(times.edit), median(times.walk)];
const ms = (n) => `${n.toFixed(1)} ms`;
console.log(
  `A book of ${chapters} chapters, ${said} cross-references, ${notes} notes: all numbers and words anew`,
);
console.log(
  `  after one heading was moved: ${ms(edit)}, a bare walk over its documents ${ms(bare)}: ratio ${(edit / bare).toFixed(2)}`,
);
console.log(`  from nothing: ${ms(whole)}: ratio ${(whole / bare).toFixed(2)}`);
