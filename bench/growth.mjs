import { checkBook } from "@vennet/core/checks/check-book";
import { readTyped } from "@vennet/core/destination/read-typed";
import { importManuscript } from "@vennet/core/import/import-manuscript";
import { takeInVersion } from "@vennet/core/import/new-version/take-in-version";
import { mergeTexts } from "@vennet/core/manuscript/merge-texts";
import { schema } from "@vennet/core/manuscript/schema";
import { compareVersions } from "@vennet/core/manuscript/versions";
import { prove } from "@vennet/core/proof/prove";
import { exportOptions, formats } from "@vennet/core/publish/formats/formats";
import { textFonts } from "../server/dist/workers/fonts.js";
import { typesetter } from "../server/dist/workers/typesetter.js";
import { seededBookOf } from "./seeded-book.mjs";

// How the time of each step grows with a chapter of many things of one kind: twice as many ought to take about twice as long.
// What goes through the whole chapter for each of them takes four times as long, and is told here before an author meets it.

const sizes = [1_500, 3_000, 6_000];
const rounds = 2;
const mostTimes = 3;
/** So many milliseconds are too few to tell how they grow. */
const least = 150;

const many = (count, one) => Array.from({ length: count }, (_, i) => one(i)).join("");
const way = (i) => `https://s-${i % 97}.hesterley.example/way/${i}`;
const link = (i) => `<a href="${way(i)}">ford ${i}</a>`;
const html = {
  "a list": (n) => `<ul>${many(n, (i) => `<li>Stone ${i} at the ${link(i)}</li>`)}</ul>`,
  "lists within lists": (n) =>
    `<ul>${many(n / 10, (i) => `<li>Bay ${i}<ul>${many(10, (k) => `<li>${link(i * 10 + k)}</li>`)}</ul></li>`)}</ul>`,
  "a table": (n) => `<table>${many(n, (i) => `<tr><td>Row ${i}</td><td>${link(i)}</td></tr>`)}</table>`,
  notes: (n) =>
    many(n, (i) => `<p>Words<a id="r${i}" href="#n${i}" role="doc-noteref">${i + 1}</a> go on.</p>`) +
    many(n, (i) => `<p id="n${i}"><a href="#r${i}">${i + 1}</a> Note ${i}, ${link(i)}.</p>`),
  headings: (n) =>
    many(n, (i) => `<h2 id="h${i}">Stretch ${i}</h2><p>Some <a href="#h${(i * 7) % n}">way ${i}</a>.</p>`),
  anchors: (n) =>
    many(n, (i) => `<p>So <a id="a${i}"></a>here and <a href="#a${(i * 13) % n}">there ${i}</a>.</p>`),
  "one paragraph of links": (n) => `<p>${many(n, (i) => `and ${link(i)} then `)}</p>`,
  "lines of one paragraph": (n) => `<p>${many(n, (i) => `line ${link(i)}<br>`)}</p>`,
  "links of the same words": (n) => many(n, (i) => `<p>For ${i} read <a href="${way(i)}">the table</a>.</p>`),
  "addresses without a link": (n) => many(n, (i) => `<p>See ${way(i)} there.</p>`),
  emails: (n) => many(n, (i) => `<p>Ask <a href="mailto:w${i}@hesterley.example">warden ${i}</a>.</p>`),
  quotes: (n) => many(n, (i) => `<blockquote><p>Tide ${i} ${link(i)}</p></blockquote>`),
  terms: (n) => `<dl>${many(n, (i) => `<dt>Term ${i}</dt><dd>Means ${link(i)}</dd>`)}</dl>`,
  listings: (n) => many(n, (i) => `<pre><code>a = ${i}\nb = ${i}</code></pre><p>so</p>`),
};
const markdown = {
  "a loose list of Markdown": (n) => many(n, (i) => `${i + 1}. Stone [ford ${i}](${way(i)})\n\n   More.\n\n`),
  "notes of Markdown": (n) => many(n / 4, (i) => `Words[^${i}].\n\n[^${i}]: Note [so](${way(i)}).\n\n`),
  "definitions of Markdown": (n) =>
    many(n / 2, (i) => `See [ford ${i}][f${i}].\n\n`) + many(n / 2, (i) => `[f${i}]: ${way(i)}\n`),
};
/** What is also set in pages, in a quarter of the number. */
const inPages = ["notes", "headings", "a table"];

const encoder = new TextEncoder();
const page = (body) =>
  `<!doctype html><html lang="en"><title>Walks</title><body><h1>Walks</h1>${body}</body></html>`;
const bring = (bytes) =>
  importManuscript(
    { name: "walks", bytes },
    { fallbackTitle: "Walks", baseAddress: null, pictureFor: () => null },
  );

for (const [shape, of] of Object.entries(html))
  await grows(shape, sizes, async (n, lap) => {
    const bytes = encoder.encode(page(of(n)));
    const { chapters } = await lap("bringing in", () => bring(bytes));
    const book = seededBookOf(chapters);
    await lap("rules", () => checkBook(book));
    await written(book, "epub", lap);
  });
for (const [shape, of] of Object.entries(markdown))
  await grows(shape, sizes, async (n, lap) => {
    const bytes = encoder.encode(`# Walks\n\n${of(n)}`);
    await lap("bringing in", () => bring(bytes));
  });
for (const shape of inPages)
  await grows(
    `${shape}, in pages`,
    sizes.map((n) => n / 4),
    async (n, lap) => {
      const { chapters } = await bring(encoder.encode(page(html[shape](n))));
      await written(seededBookOf(chapters), "pdf", lap);
    },
  );
await grows("paragraphs of which each changed", sizes, async (n, lap) => {
  const paragraph = (i, words) => schema.node("paragraph", null, schema.text(`${words} ${i} at the ford.`));
  const of = (words) =>
    schema.node("doc", null, [
      schema.node("title", { id: "walks" }, schema.text("Walks")),
      ...Array.from({ length: n }, (_, i) => paragraph(i, words)),
    ]);
  const [before, after] = [of("Stone"), of("The stone")];
  await lap("differences", () => compareVersions(before, after));
  await lap("putting together", () => mergeTexts(before, before, after));
  await lap("a new version", () => takeInVersion([before], [before], [after], () => "here"));
});

await grows("places that a book knows, while words are typed into the link line", sizes, async (n, lap) => {
  const known = Array.from({ length: 4 * n }, (_, i) => ({
    destination: { kind: "place", target: `stretch-${i}` },
    name: `Stretch ${i}`,
    detail: `Heading in Causeway ${i % 300}`,
    uses: i % 5,
  }));
  const typed = "Stretch 12";
  await lap("choices", () => {
    for (let length = 1; length <= typed.length; length++) readTyped(typed.slice(0, length), { known });
  });
});

/** Writes a book in a format, reads it back and compares it. */
async function written(book, format, lap) {
  const { bytes } = await lap("writing", () =>
    formats[format].write(book, exportOptions({ format }), {
      name: "walks",
      lastPages: null,
      textFonts,
      setPages: (...given) => typesetter(book.fontFaces).write(...given),
    }),
  );
  const reading = await lap("reading back", () => formats[format].readBack(bytes, () => undefined));
  const { complete } = await lap("comparing", () => prove(book, reading));
  if (!complete) throw new Error(`The proof of ${format} is not complete.`);
}

/** Does some steps in three sizes, and says by how much each grows at most where there is twice as much. */
async function grows(shape, counts, work) {
  const times = new Map();
  for (const [at, n] of counts.entries())
    for (let round = 0; round < rounds; round++)
      await work(n, async (step, run) => {
        const started = performance.now();
        const result = await run();
        const all = times.get(step) ?? counts.map(() => Infinity);
        times.set(step, all);
        all[at] = Math.min(all[at], performance.now() - started);
        return result;
      });
  const told = [...times].map(([step, all]) => {
    const grown = all.at(-1) < least ? "" : ` ×${(all.at(-1) / all.at(-2)).toFixed(1)}`;
    const isWrong = grown !== "" && all.at(-1) / all.at(-2) > mostTimes;
    return `${step} ${all.map((ms) => ms.toFixed(0)).join(", ")} ms${grown}${isWrong ? " (MISSED)" : ""}`;
  });
  console.log(`${counts.join(", ")} of ${shape}: ${told.join("; ")} (aim: at most ×${mostTimes})`);
}
