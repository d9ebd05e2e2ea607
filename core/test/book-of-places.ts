import type { Node } from "prosemirror-model";
import type { Book } from "../manuscript/book.ts";
import { defaultConventions } from "../manuscript/conventions.ts";
import type { CrossReference, SignpostList } from "../manuscript/attributes.ts";
import { schema } from "../manuscript/schema.ts";
import { bookOf } from "./sample-book.ts";

const list: SignpostList = {
  id: "list",
  of: "contents",
  scope: "book",
  section: null,
  depth: 2,
  anchors: [],
  heading: "",
  returnWords: null,
};

/** Blocks of text as a test needs them, with ids that it knows. */
export const text = (...content: (Node | string)[]): Node =>
  schema.node("paragraph", null, content.map(inline));
export const heading = (id: string, level: number, ...content: (Node | string)[]): Node =>
  schema.node("heading", { id, level }, content.map(inline));
export const caption = (id: string, of: "figure" | "table", ...content: (Node | string)[]): Node =>
  schema.node("caption", { id, of }, content.map(inline));
export const anchor = (id: string, name = id): Node => schema.node("anchor", { id, name });
export const noteMark = (note: string): Node => schema.node("note_reference", { note });
export const note = (id: string, ...content: (Node | string)[]): Node =>
  schema.node("note", { id }, [text(...content)]);
export const signposts = (attrs: Partial<SignpostList>): Node =>
  schema.node("signposts", { ...list, ...attrs });
export const see = (id: string, target: string, more: Partial<CrossReference> = {}): Node =>
  schema.node("cross_reference", { id, target, ...more });
export const linkTo = (id: string, target: string, words: string, description: string | null = null): Node =>
  schema.text(words, [schema.mark("link", { id, destination: { kind: "place", target }, description })]);
export const table = (words: string): Node =>
  schema.node("table", null, [
    schema.node("table_row", null, [schema.node("table_header", null, [text(words)])]),
    schema.node("table_row", null, [schema.node("table_cell", null, [text("four hours")])]),
  ]);
export const chapter = (id: string, title: string, ...content: Node[]): Node =>
  schema.node("doc", null, [schema.node("title", { id }, [schema.text(title)]), ...content]);

function inline(content: Node | string): Node {
  return typeof content === "string" ? schema.text(content) : content;
}

/** A book of these chapters. */
export function bookWith(docs: Node[], more: Partial<Book> = {}): Book {
  return bookOf("", {
    title: "The Causeways",
    chapters: docs.map((doc, i) => ({ id: `chapter-${i}`, role: "chapter", doc })),
    ...more,
  });
}

/** A book that uses every kind of place, and everything that follows from one. */
export function bookOfPlaces(more: Partial<Book> = {}): Book {
  return bookWith(
    [
      chapter(
        "walks",
        "Walks",
        signposts({ id: "contents", heading: "What is where", returnWords: "Back to what is where" }),
        text("Begin at ", anchor("post", "Fünfter Pfosten – 干潮"), "the fifth post. It is white."),
        heading("way", 1, "The way"),
        text("See ", see("s1", "sand", { form: "page" }), ", ", see("s2", "sand", { form: "number" }), "."),
        table("Bare for"),
        caption("bare", "table", "How long it lies bare"),
        text("A note", noteMark("clock"), " and again", noteMark("clock"), " and ", noteMark("wind"), "."),
        note("wind", "The west wind, ", linkTo("l1", "post", "at the post"), "."),
        note("clock", "Sound time."),
      ),
      chapter(
        "questions",
        "Questions",
        signposts({
          id: "asked",
          of: "questions",
          scope: "section",
          section: "answers",
          depth: 2,
          heading: "You ask",
          returnWords: "Back to the questions",
        }),
        heading("answers", 1, "Answers"),
        heading("sand", 2, "What about sand?"),
        text("It moves; see ", see("s3", "way", { form: "page-and-text" }), "."),
        heading("sea", 2, "What about the sea?"),
        text("It comes back, see ", see("s4", "sand", { form: "above-or-below" }), noteMark("moon"), "."),
        text(linkTo("l2", "book-top", "To the top", "Top of the book"), " ", see("s5", "post")),
        text("And ", see("s6", "bare", { form: "number" }), ", ", see("s7", "gone")),
        signposts({ id: "tables", of: "tables", heading: "Tables" }),
        signposts({ id: "chosen", of: "anchors", anchors: ["post"], heading: "Posts" }),
        note("moon", "Twice a day."),
      ),
    ],
    { conventions: { ...defaultConventions, headings: 3 }, ...more },
  );
}

/** A book of many places, each with a word that stands there and nowhere else, and a link to each. */
export function bookOfManyPlaces(count: number): { book: Book; places: { id: string; word: string }[] } {
  const perChapter = 20;
  const filler = "The sand is firm here for as long as the water stays away, and no longer than that. ";
  const places: { id: string; word: string }[] = [];
  const docs: Node[] = [];
  for (let c = 0; places.length < count; c++) {
    const blocks: Node[] = [];
    const notes: Node[] = [];
    const place = (id: string): string => {
      const word = `mark${places.length}`;
      places.push({ id, word });
      return word;
    };
    const title = place(`chapter-${c}`);
    for (let i = 1; i < perChapter && places.length < count; i++) {
      const id = `place-${c}-${i}`;
      const word = place(id);
      const kind = i % 4;
      if (kind === 0) blocks.push(heading(id, 1 + (i % 3), `${word} in a heading`));
      else if (kind === 1)
        blocks.push(
          text(
            filler.repeat(1 + (i % 5)),
            anchor(id, `Any name ${i} – 干潮`),
            `${word} stands here. `,
            filler,
          ),
        );
      else if (kind === 2) {
        blocks.push(text(filler, noteMark(id), filler));
        notes.push(note(id, `${word} in a note.`));
      } else blocks.push(table("Bare for"), caption(id, "table", `${word} in a caption`));
    }
    docs.push(chapter(`chapter-${c}`, title, ...blocks, ...notes));
  }
  const links = places.map(({ id, word }, i) => text(linkTo(`link-${i}`, id, `to ${word}`)));
  docs.push(chapter("links", "Links", ...links));
  return { book: bookWith(docs), places };
}

/** A book in which places, notes and what follows from them stand wherever they may: in headings, quotes, lists, captions. */
export function bookOfOddPlaces(): Book {
  const office = schema.text("office", [
    schema.mark("link", { id: "w", destination: { kind: "web", address: "https://tides.example/" } }),
  ]);
  const item = (...content: Node[]): Node =>
    schema.node("bullet_list", null, [schema.node("list_item", null, content)]);
  return bookWith([
    chapter(
      "c1",
      "One",
      heading(
        "h1",
        1,
        "With a note",
        noteMark("n1"),
        " and ",
        see("r1", "h2"),
        anchor("a1"),
        " by the ",
        office,
      ),
      text(see("r2", "h2", { form: "page" }), noteMark("n1")),
      schema.node("blockquote", null, [
        text("quoted ", see("r3", "k1", { form: "number" })),
        signposts({ id: "s1", of: "tables", heading: "In a quote" }),
      ]),
      item(text("item"), table("x"), caption("k1", "table", "In an item", noteMark("n2"), see("r4", "h1"))),
      caption("k2", "table", "Over its table"),
      table("y"),
      signposts({ id: "s2", depth: 3, returnWords: "Back" }),
      note("n1", "Note ", see("r5", "n2", { form: "number" }), anchor("a2"), "with a place"),
      schema.node("note", { id: "n2" }, [item(text("listed")), text("and more")]),
    ),
    chapter(
      "c2",
      "Two",
      heading("h2", 2, "Deep"),
      text(linkTo("l1", "a2", "in a note"), " ", linkTo("l2", "s1", "a list")),
      text(linkTo("l3", "n2", "a note"), " ", linkTo("l4", "k2", "a caption")),
    ),
  ]);
}
