import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { schema } from "@vennet/core/manuscript/schema";
import { bookOf } from "./long-book.mjs";

// Books from a seed that look like books: words of natural lengths in sentences and paragraphs, three scripts, sections,
// lists, tables, pictures, notes, references, and links of all kinds, one in five with something to find.

const stems =
  "tide sand stone post mark shore water mud creek wind gull path bell rope boat keeper warden causeway morning evening winter refuge marker channel harbour lantern estuary saltmarsh cockle oyster quicksand footprint landmark navigation equinox".split(
    " ",
  );
const small =
  "the a of and to in at by from with over under before after it is was has no not more than when where which that this they who as on for or but if then".split(
    " ",
  );
const verbs =
  "leads turns rises falls stands waits carries crosses follows reaches covers remains measures disappears continues marks".split(
    " ",
  );
const elsewhere = [
  ["ja", "干潮の時は石が見える"],
  ["ar", "يظهر الحجر عند الجزر"],
  ["ru", "камень виден в отлив"],
];
/** A picture of one red pixel. */
const dot = Uint8Array.from(
  Buffer.from(
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR4nGP4z8DwHwAFAAH/iZk9HQAAAABJRU5ErkJggg==",
    "base64",
  ),
);

/** Numbers from 0 to 1 that are the same for the same seed (mulberry32). */
export function randomFrom(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/**
 * A book, as the exports and the checks take it.
 * @param links in each chapter, one in five of them with a finding, one in four within the book
 * @param words in each chapter, about
 */
export function seededBook({ seed = 1, chapters, words, links }) {
  const random = randomFrom(seed);
  const any = (list) => list[Math.floor(random() * list.length)];
  const count = (least, most) => least + Math.floor(random() * (most - least + 1));
  let ids = 0;
  const id = (kind) => `${kind}${ids++}`;
  const sections = Math.max(1, Math.round(words / 900));
  const heading = (chapter, section) => `h-${chapter}-${section}`;

  const phrase = (length) =>
    Array.from({ length }, (_, at) =>
      at % 4 === 3 ? any(verbs) : random() < 0.45 ? any(small) : any(stems),
    ).join(" ");
  const sentence = (length) => {
    const said = phrase(length);
    return `${said[0].toUpperCase()}${said.slice(1)}${random() < 0.9 ? "." : "?"} `;
  };

  function link(chapter, number) {
    const host = `${any(stems)}-${number % 250}.hesterley.test`;
    const page = `https://${host}/${any(stems)}/${chapter}-${number}`;
    const web = (address) => ({ kind: "web", address });
    const make = (text, destination, description = null) =>
      schema.text(text, [schema.mark("link", { id: id("l"), destination, description })]);
    if (number % 5 === 4)
      return [
        () => make("here", web(page)),
        () => make(page, web(page)),
        () => make(`the ${any(stems)} of ${any(stems)}`, web(`${page}?utm_source=walk&utm_medium=${number}`)),
        () => make(`the ${any(stems)} ${number} `, web(page)),
        () =>
          make(`write to the ${any(stems)}`, { kind: "email", address: `mailto:${any(stems)}@hesterley` }),
      ][count(0, 4)]();
    if (number % 4 === 0) {
      const target = heading(count(0, chapters - 1), count(0, sections - 1));
      return random() < 0.5
        ? schema.node("cross_reference", { id: id("r"), target, form: any(["text", "number", "page"]) })
        : make(`${phrase(2)} ${number}`, { kind: "place", target });
    }
    return make(`${phrase(count(2, 4))} ${chapter}-${number}`, web(page), random() < 0.3 ? phrase(5) : null);
  }

  const docs = Array.from({ length: chapters }, (_, chapter) => {
    const blocks = [];
    const notes = [];
    let [written, linked] = [0, 0];
    const text = (length) => {
      written += length;
      return schema.text(sentence(length));
    };
    const paragraph = () => {
      const parts = [];
      for (let left = count(3, 8); left > 0; left--) {
        parts.push(text(count(6, 26)));
        while (linked < Math.min(links, (links * written) / words)) {
          parts.push(link(chapter, linked++), schema.text(" "));
        }
      }
      if (random() < 0.12) {
        const note = id("n");
        parts.push(schema.node("note_reference", { note }));
        notes.push(schema.node("note", { id: note }, [schema.node("paragraph", null, [text(count(8, 30))])]));
      }
      if (random() < 0.05) {
        const [tag, said] = any(elsewhere);
        parts.push(schema.text(said, [schema.mark("language", { tag })]));
      }
      return schema.node("paragraph", null, parts);
    };
    const cell = (kind) => schema.node(kind, null, [schema.node("paragraph", null, [text(count(1, 5))])]);
    const row = (kind) => schema.node("table_row", null, [cell(kind), cell(kind), cell(kind)]);
    for (let section = 0; section < sections; section++) {
      blocks.push(
        schema.node("heading", { id: heading(chapter, section), level: 1 + (section % 2) }, [
          schema.text(`The ${any(stems)} of the ${any(stems)}, ${chapter}-${section}`),
        ]),
      );
      while (written < (words * (section + 1)) / sections) {
        blocks.push(paragraph());
        const turn = random();
        if (turn < 0.06)
          blocks.push(
            schema.node(
              "bullet_list",
              null,
              Array.from({ length: count(3, 6) }, () => schema.node("list_item", null, [paragraph()])),
            ),
          );
        else if (turn < 0.08)
          blocks.push(
            schema.node("table", null, [
              row("table_header"),
              ...Array.from({ length: 4 }, () => row("table_cell")),
            ]),
          );
        else if (turn < 0.1)
          blocks.push(
            schema.node("paragraph", null, [
              schema.node("picture", { file: "dot", alt: phrase(4), width: 40 }),
            ]),
            schema.node("caption", { id: id("f") }, [text(count(3, 8))]),
          );
      }
    }
    const title = schema.node("title", { id: `c-${chapter}` }, [
      schema.text(`${any(stems)} and ${any(stems)}`),
    ]);
    return schema.node("doc", null, [title, ...blocks, ...notes]);
  });
  return seededBookOf(docs);
}

/** The book of documents that came from a seed, on their way to another process for example. */
export function seededBookOf(docs) {
  return {
    ...bookOf(docs),
    // References by number need headings that have one.
    conventions: { ...defaultConventions, headings: 3 },
    pictures: [{ id: "dot", mediaType: "image/png", bytes: dot }],
  };
}

/** Puts another letter at the beginning of a document's first words that nothing is said of. */
export function typeLetter(document) {
  const words = document.content
    .flatMap(({ type, content }) => (type === "paragraph" ? content : []))
    .find(({ type, marks }) => type === "text" && !marks);
  words.text = `${words.text[0] === "a" ? "b" : "a"}${words.text.slice(1)}`;
}
