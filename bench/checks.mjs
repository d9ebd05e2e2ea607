import { checkBook } from "@vennet/core/checks/check-book";
import { nothingKnown } from "@vennet/core/checks/surroundings";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { defaultLayout } from "@vennet/core/manuscript/page-layout";
import { defaultLooks } from "@vennet/core/manuscript/looks";
import { schema } from "@vennet/core/manuscript/schema";

// The static checks of a book with 20,000 links, beside one bare walk over its documents.

const chapters = 40;
const linksInChapter = 500;
let id = 0;
const link = (n) =>
  schema.text(`the waymark ${n} of the shore`, [
    schema.mark("link", {
      id: `l${id++}`,
      destination: { kind: "web", address: `https://stone-${n % 250}.hesterley.test/waymark/${n}` },
      description: null,
    }),
  ]);
const docs = Array.from({ length: chapters }, (_, c) =>
  schema.node("doc", null, [
    schema.node("title", { id: `t${c}` }, [schema.text(`Chapter ${c}`)]),
    ...Array.from({ length: linksInChapter / 2 }, (_, p) =>
      schema.node("paragraph", null, [
        schema.text("Before the water turns, look for "),
        link(c * linksInChapter + p * 2),
        schema.text(" and for nothing else, then walk on to "),
        link(c * linksInChapter + p * 2 + 1),
        schema.text(", which stands dry at every tide of the year but the highest."),
      ]),
    ),
  ]),
);
const book = {
  id: "b",
  title: "B",
  author: "A",
  language: "en",
  modified: "2026-11-25T00:00:00Z",
  chapters: docs.map((doc, i) => ({ id: `c${i}`, role: "chapter", doc })),
  pictures: [],
  files: new Map(),
  fileBytes: new Map(),
  looks: defaultLooks,
  conventions: defaultConventions,
  layout: defaultLayout,
};

function walk() {
  let marks = 0;
  for (const doc of docs) doc.descendants((node) => void (marks += node.marks.length));
  return marks;
}
const timed = (work) => {
  const started = performance.now();
  const result = work();
  return [performance.now() - started, result];
};
let best = { walk: Infinity, check: Infinity };
let found = 0;
for (let turn = 0; turn < 7; turn++) {
  const [walked, marks] = timed(walk);
  if (marks !== chapters * linksInChapter) throw new Error(`The walk saw ${marks} links.`);
  const [checked, findings] = timed(() => checkBook(book, nothingKnown));
  found = findings.length;
  best = { walk: Math.min(best.walk, walked), check: Math.min(best.check, checked) };
}
console.log("Static checks of a book with 20,000 links, every rule");
console.log(
  `  Vennet ${best.check.toFixed(0)} ms (${found} findings), a bare walk over its documents ${best.walk.toFixed(1)} ms: ratio ${(best.check / best.walk).toFixed(1)} (aim: at most 5)`,
);
