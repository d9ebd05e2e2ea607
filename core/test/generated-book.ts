import fc from "fast-check";
import type { Mark, Node } from "prosemirror-model";
import type { Book } from "../manuscript/book.ts";
import { defaultConventions } from "../manuscript/conventions.ts";
import { noFrame } from "../manuscript/hotspot.ts";
import { schema } from "../manuscript/schema.ts";
import { setOffKinds } from "../manuscript/set-off.ts";
import { bareFor } from "./chapter-set-apart.ts";
import { bookWith } from "./book-of-places.ts";
import { redDot } from "./red-dot.ts";

/** What is yet to be made of a generated book: places that may lead anywhere in it. */
interface Making {
  next: number;
  shown: number;
  places: string[];
  /** What is built once all places are known. */
  notes: Node[];
}

type Make<T> = (making: Making) => T;

const words = fc
  .array(
    fc.constantFrom(
      ..."sand tide post <low> R&D “quay” naïve Ærø 干潮 ночь a_b *four* [bare] `x` 5 % don't fi ffl é 12:40 #7 | C:\\way ~ שביל הגאות جدول راه\u200cها क्षेत्र ज्वार 한국어 ทาง ஓதப்".split(
        " ",
      ),
    ),
    { minLength: 1, maxLength: 8 },
  )
  .map((all) => `so ${all.join(" ")} on`);

const id = (making: Making, kind: string): string => `${kind}${making.next++}`;

/** Ids are given in a first pass, and links to places are resolved in a second, when all are known. */
const pending = "pending-";
const someWhere = fc.nat({ max: 10_000 }).map((at) => `${pending}${at}`);

const destination = fc.oneof(
  fc
    .tuple(
      fc.webPath(),
      fc.webQueryParameters(),
      fc.constantFrom("https://tides.example", "http://inns.example:8080"),
    )
    .map(([path, query, host]) => ({
      kind: "web",
      address: new URL(`${host}${path}${query && `?${query}`}`).href,
    })),
  fc.constantFrom("a@tides.example", "a@tides.example?subject=R3%20%26%20R4&body=x%0D%0Ay").map((to) => ({
    kind: "email",
    address: `mailto:${to}`,
  })),
  fc.constant({ kind: "file", file: "plan" }),
  someWhere.map((target) => ({ kind: "place", target })),
);

const inFrench = schema.mark("language", { tag: "fr-CA" });
const mark = fc.constantFrom(...["emphasis", "strong", "code"].map((name) => schema.mark(name)), inFrench);

const ways: Readonly<Record<string, readonly string[]>> = {
  emphasis: ["emphasis", "strike", "small_caps"],
  strong: ["strong", "underline"],
};

/** Words with a mark, or another one like it in turn; now and then something short is raised or lowered behind them. */
function shownWords(making: Making, text: string, one: Mark): Node[] {
  const turn = making.shown++;
  const all = ways[one.type.name];
  const mark = all ? schema.mark(all[turn % all.length]!) : one;
  const script = schema.mark(turn % 8 === 0 ? "superscript" : "subscript");
  return [schema.text(text, [mark]), ...(turn % 4 === 0 ? [schema.text("n+1", [script])] : [])];
}

const inline: fc.Arbitrary<Make<Node[]>> = fc.oneof(
  { weight: 6, arbitrary: words.map((text): Make<Node[]> => () => [schema.text(` ${text} `)]) },
  {
    weight: 6,
    arbitrary: fc
      .tuple(
        words,
        destination,
        fc.option(words),
        fc.boolean(),
        fc.subarray([schema.mark("emphasis"), schema.mark("strong"), inFrench]),
      )
      .map(([text, to, description, newWindow, more]): Make<Node[]> => (making) => {
        const link = schema.mark("link", {
          id: id(making, "l"),
          destination: to,
          description,
          newWindow: newWindow && to.kind === "web",
          look:
            newWindow && to.kind !== "web" ? { colour: "#7a1fa2", underline: "dashed", bold: true } : null,
        });
        const marks: Mark[] = [link, ...more];
        return [schema.text(text, marks), schema.text(", ")];
      }),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(words, mark)
      .map(([text, one]): Make<Node[]> => (making) => [...shownWords(making, text, one), schema.text(" ")]),
  },
  {
    weight: 2,
    arbitrary: words.map((name): Make<Node[]> => (making) => {
      const one = id(making, "a");
      making.places.push(one);
      return [schema.node("anchor", { id: one, name }), schema.text("by here ")];
    }),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(
        someWhere,
        fc.constantFrom("text", "number", "page", "page-and-text", "above-or-below"),
        fc.constantFrom("text", "number"),
      )
      .map(([target, form, fallback]): Make<Node[]> => (making) => [
        schema.node("cross_reference", { id: id(making, "r"), target, form, fallback }),
        schema.text("; "),
      ]),
  },
  {
    weight: 1,
    arbitrary: fc.constant<Make<Node[]>>(({ places }) => [
      places.length % 2 === 0
        ? schema.node("hard_break")
        : schema.node("formula", { math: bareFor, display: places.length % 4 === 1 }),
    ]),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(words, fc.boolean(), fc.option(destination), fc.option(fc.integer({ min: 10, max: 100 })))
      .map(([alt, decorative, area, width]): Make<Node[]> => (making) => [
        schema.node("picture", {
          file: "dot",
          alt: decorative ? "" : alt,
          decorative,
          width,
          hotspots: area
            ? [
                {
                  id: id(making, "h"),
                  shape: "rectangle",
                  points: [
                    [0.1, 0.1],
                    [0.5, 0.6],
                  ],
                  alt,
                  destination: area,
                  description: null,
                  frame: noFrame,
                },
              ]
            : [],
        }),
      ]),
  },
  {
    weight: 1,
    arbitrary: words.map((text): Make<Node[]> => (making) => {
      const note = id(making, "n");
      making.places.push(note);
      making.notes.push(schema.node("note", { id: note }, [paragraphOf([schema.text(text)])]));
      return [schema.node("note_reference", { note }), schema.text(" and ")];
    }),
  },
);

const line: fc.Arbitrary<Make<Node[]>> = fc
  .array(inline, { minLength: 1, maxLength: 5 })
  .map((parts) => (making) => [schema.text("Here "), ...parts.flatMap((make) => make(making))]);

/** One of several by the length of what it is for, so that books of a seed stay the same in all else. */
function turn<T>(content: readonly Node[], among: readonly T[]): T {
  const length = content.reduce((sum, { nodeSize }) => sum + nodeSize, 0);
  return among[length % among.length]!;
}

/** What a list's item would be, as the meaning of a term, which is a link at times, or has a note. */
function definition(making: Making, blocks: Node[]): Node[] {
  const term = (): Node[] => [schema.text("Term")];
  const linked = (): Node[] => {
    const to = { kind: "web", address: "https://terms.hesterley.example/" };
    return [schema.text("Term", [schema.mark("link", { id: id(making, "l"), destination: to })])];
  };
  const noted = (): Node[] => {
    const note = id(making, "n");
    making.places.push(note);
    making.notes.push(schema.node("note", { id: note }, [paragraphOf([schema.text("Of a term.")])]));
    return [...term(), schema.node("note_reference", { note })];
  };
  return [
    schema.node("definition_term", null, turn(blocks, [term, linked, noted])()),
    schema.node("definition", null, blocks),
  ];
}

function paragraphOf(content: Node[]): Node {
  return schema.node("paragraph", null, content);
}

const { block } = fc.letrec<{ block: Make<Node[]>; some: Make<Node[]> }>((tie) => ({
  some: fc
    .array(tie("block"), { minLength: 1, maxLength: 2 })
    .map((blocks) => (making) => [
      ...blocks.flatMap((make) => make(making)),
      paragraphOf([schema.text("Done.")]),
    ]),
  block: fc.oneof(
    { maxDepth: 2, depthIdentifier: "block" },
    line.map((make): Make<Node[]> => (making) => {
      const content = make(making);
      return [
        schema.node("paragraph", { align: turn(content, [null, null, null, "center", "end"]) }, content),
      ];
    }),
    fc.tuple(line, fc.integer({ min: 1, max: 4 })).map(([make, level]): Make<Node[]> => (making) => {
      const one = id(making, "s");
      making.places.push(one);
      return [schema.node("heading", { id: one, level }, make(making))];
    }),
    fc
      .tuple(words, fc.boolean())
      .map(([text, twoLines]): Make<Node[]> => () => [
        schema.node("code_block", null, [schema.text(twoLines ? `${text}\n  ${text}` : text)]),
      ]),
    fc.constant<Make<Node[]>>(({ places }) => [
      schema.node(places.length % 2 === 0 ? "section_break" : "page_break"),
    ]),
    tie("some").map((make): Make<Node[]> => (making) => {
      const content = make(making);
      return [schema.node("blockquote", { kind: turn(content, setOffKinds) }, content)];
    }),
    fc
      .tuple(fc.array(tie("some"), { minLength: 1, maxLength: 2 }), fc.option(fc.integer({ min: 1, max: 9 })))
      .map(([items, start]): Make<Node[]> => (making) => {
        const all = items.map((make) => make(making));
        if (start !== null && turn(all.flat(), [true, false, false]))
          return [
            schema.node(
              "definition_list",
              null,
              all.flatMap((blocks) => definition(making, blocks)),
            ),
          ];
        const content = all.map((blocks) =>
          schema.node(
            "list_item",
            { done: start === null ? turn(blocks, [null, true, false]) : null },
            blocks,
          ),
        );
        return [
          start === null
            ? schema.node("bullet_list", null, content)
            : schema.node("ordered_list", { start }, content),
        ];
      }),
    fc
      .tuple(
        fc.array(line, { minLength: 2, maxLength: 2 }),
        fc.constantFrom(null, "left", "center", "right"),
        fc.option(line),
      )
      .map(([cells, align, caption]): Make<Node[]> => (making) => {
        const row = (type: string, one: Make<Node[]>): Node =>
          schema.node("table_row", null, [schema.node(type, { align }, [paragraphOf(one(making))])]);
        const table = schema.node("table", null, [
          row("table_header", cells[0]!),
          row("table_cell", cells[1]!),
        ]);
        if (!caption) return [table];
        const one = id(making, "t");
        making.places.push(one);
        return [table, schema.node("caption", { id: one, of: "table" }, caption(making))];
      }),
    fc
      .tuple(
        fc.constantFrom("contents", "questions", "figures", "tables"),
        fc.constantFrom("book", "chapter"),
        fc.integer({ min: 1, max: 4 }),
        fc.option(words),
      )
      .map(([of, scope, depth, returnWords]): Make<Node[]> => (making) => {
        const one = id(making, "g");
        making.places.push(one);
        return [schema.node("signposts", { id: one, of, scope, depth, heading: `List ${one}`, returnWords })];
      }),
  ),
}));

/** Books with every node and mark that a manuscript may have, if not in every shape, and links from everywhere to everywhere. */
export const generatedBook: fc.Arbitrary<Book> = fc
  .record({
    titles: fc.array(words, { minLength: 1, maxLength: 3 }),
    chapters: fc.array(fc.array(block, { minLength: 1, maxLength: 5 }), { minLength: 3, maxLength: 3 }),
    hasPageApart: fc.boolean(),
    language: fc.constantFrom("en", "de", "fr", "ar"),
    numbered: fc.integer({ min: 0, max: 4 }),
    notesAt: fc.constantFrom("page" as const, "chapter" as const, "book" as const),
  })
  .map(({ titles, chapters, hasPageApart, language, numbered, notesAt }) => {
    const making: Making = { next: 1, shown: 0, places: [], notes: [] };
    const docs = titles.map((title, i) => {
      const one = id(making, "c");
      making.places.push(one);
      making.notes = [];
      const blocks = chapters[i]!.flatMap((make) => make(making));
      return schema.node("doc", null, [
        schema.node("title", { id: one }, [schema.text(title)]),
        ...blocks,
        ...making.notes,
      ]);
    });
    const book = bookWith(
      docs.map((doc) => resolved(doc, making.places)),
      {
        title: `The ${titles[0]!}`,
        language,
        conventions: { ...defaultConventions, headings: numbered, notesAt },
        files: new Map([["plan", { name: "Plan №1.txt", mediaType: "text/plain", size: 4 }]]),
        fileBytes: new Map([["plan", Buffer.from("plan")]]),
        pictures: [{ id: "dot", mediaType: "image/png", bytes: redDot }],
      },
    );
    if (hasPageApart && book.chapters.length > 1) book.chapters.at(-1)!.role = "companion";
    const [, second] = book.chapters;
    if (second?.role === "chapter" && second.doc.nodeSize % 2 === 0) second.role = "part";
    const [first] = book.chapters;
    if (first?.role === "chapter" && first.doc.nodeSize % 3 === 0) first.role = "unnumbered";
    return book;
  });

/** Puts a place of the book where one was pending. */
function resolved(doc: Node, places: readonly string[]): Node {
  const json = JSON.stringify(doc.toJSON()).replace(
    new RegExp(`"${pending}(\\d+)"`, "g"),
    (_, at: string) => `"${places[Number(at) % places.length]!}"`,
  );
  const made = schema.nodeFromJSON(JSON.parse(json));
  made.check();
  return made;
}
