import type { Node } from "prosemirror-model";
import type { Book } from "../manuscript/book.ts";
import { defaultConventions } from "../manuscript/conventions.ts";
import type { Destination } from "../destination/kinds/kinds.ts";
import { noFrame, type Hotspot } from "../manuscript/hotspot.ts";
import { schema } from "../manuscript/schema.ts";
import {
  anchor,
  bookWith,
  caption,
  chapter,
  heading,
  linkTo,
  note,
  noteMark,
  see,
  signposts,
  table,
  text,
} from "./book-of-places.ts";
import { chapterSetApart } from "./chapter-set-apart.ts";
import { redDot } from "./red-dot.ts";

const web = (path: string): Destination => ({
  kind: "web",
  address: `https://tides.hesterley.example/${path}`,
});

function link(id: string, words: string, destination: Destination, more: Record<string, unknown> = {}): Node {
  return schema.text(words, [schema.mark("link", { id, destination, ...more })]);
}

function area(id: string, alt: string, destination: Destination, more: Partial<Hotspot>): Hotspot {
  return { id, shape: "rectangle", points: [], alt, destination, description: null, frame: noFrame, ...more };
}

function picture(alt: string, hotspots: Hotspot[] = [], marks: Parameters<Node["mark"]>[0] = []): Node {
  return schema.node("picture", { file: "dot", alt, width: 60, hotspots }, undefined, marks);
}

/** A book that has every kind of link, place, note and list, each more than once. */
export function bookOfEveryFeature(more: Partial<Book> = {}): Book {
  const map = [
    area("h1", "The refuge on the map", web("refuge"), {
      points: [
        [0.1, 0.1],
        [0.4, 0.5],
      ],
    }),
    area(
      "h2",
      "The bell on the map",
      { kind: "place", target: "post" },
      {
        shape: "polygon",
        points: [
          [0.5, 0.5],
          [0.9, 0.5],
          [0.7, 0.9],
        ],
        description: "Where the bell is",
      },
    ),
    area("h3", "The pool on the map", web("pool"), {
      shape: "ellipse",
      points: [
        [0.6, 0.1],
        [0.9, 0.3],
      ],
    }),
  ];
  const linked = [
    schema.mark("link", { id: "l9", destination: web("chart"), description: "The chart itself" }),
  ];
  const walks = chapter(
    "walks",
    "Walks",
    signposts({ id: "contents", heading: "What is where", returnWords: "Back to what is where" }),
    text(
      "Begin at ",
      anchor("post", "Fifth post"),
      "the fifth post. It is white. Ask ",
      link("l1", "the tide office", web("today"), { description: "Hours of the day" }),
      ", look at ",
      link(
        "l2",
        "the long table of low water for every causeway of the whole sound and its islands",
        web("table"),
      ),
      " or write to ",
      link("l3", "the warden", { kind: "email", address: "mailto:warden@causeways.example?subject=Walk" }),
      ".",
    ),
    heading("way", 1, "The way"),
    text(
      "See ",
      see("s1", "sand", { form: "page" }),
      ", ",
      see("s2", "sand", { form: "number" }),
      ", and ",
      link("l4", "the notice", web("notice"), { newWindow: true }),
      " with ",
      link("l5", "the plan", { kind: "file", file: "plan", at: "epubcfi(/6/4!/4/2%5Blow%5D)" }),
      ".",
    ),
    table("Bare for"),
    caption("bare", "table", "How long it lies bare"),
    text("A note", noteMark("clock"), " and again", noteMark("clock"), " and ", noteMark("wind"), "."),
    text(picture("The map of the sound", map)),
    caption("map", "figure", "The sound"),
    text(picture("The chart", [], linked)),
    note("wind", "The west wind, ", linkTo("l6", "post", "at the post"), "."),
    note("clock", "Sound time, as ", link("l7", "the clock", web("clock")), " tells it."),
  );
  const questions = chapter(
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
    text(
      "It comes back, see ",
      see("s4", "sand", { form: "above-or-below" }),
      noteMark("moon"),
      ", and ",
      link("l8", "ask", web("ask")),
      ".",
    ),
    text(
      linkTo("l10", "book-top", "To the top", "Top of the book"),
      " ",
      see("s5", "post"),
      " ",
      linkTo("l11", "way", "the way there"),
    ),
    signposts({ id: "tables", of: "tables", heading: "Tables" }),
    signposts({ id: "chosen", of: "anchors", anchors: ["post"], heading: "Posts" }),
    note("moon", "Twice a day."),
  );
  const inns = chapter(
    "inns",
    "Inns",
    text(
      "Sleep at ",
      link("l12", "the inn", web("inn")),
      " or go ",
      linkTo("l13", "walks", "back to the walks"),
      ".",
    ),
  );
  const item = (...content: Node[]): Node => schema.node("list_item", null, content);
  const [strong, emphasis] = [schema.mark("strong"), schema.mark("emphasis")];
  const onMast = (words: string, ...marks: typeof linked): Node =>
    schema.text(words, [schema.mark("link", { id: "l21", destination: web("mast") }), ...marks]);
  const gear = chapter(
    "gear",
    "Gear",
    schema.node("bullet_list", null, [
      item(text("Boots from ", link("l15", "the cobbler", web("boots")), ".")),
      item(
        text("A pole, as at ", linkTo("l16", "post", "the white post")),
        schema.node("ordered_list", { start: 3 }, [item(text(link("l17", "of ash", web("ash"))))]),
      ),
    ]),
    schema.node("blockquote", null, [text("“Go early”, says ", link("l18", "a monk", web("monk")), ".")]),
    schema.node("table", null, [
      schema.node("table_row", null, [
        schema.node("table_header", null, [text(link("l19", "Rope", web("rope")))]),
        schema.node("table_header", { colspan: 2 }, [text("Length")]),
      ]),
      schema.node("table_row", null, [
        schema.node("table_cell", null, [text("Hemp"), text(link("l20", "Tarred", web("tar")))]),
        schema.node("table_cell", null, [text("thirty")]),
        schema.node("table_cell", null, [text("metres")]),
      ]),
    ]),
    schema.node("code_block", null, [
      schema.text("signal at\n"),
      link("l22", "https://tides.hesterley.example/signal", web("signal")),
    ]),
    schema.node("section_break"),
    text(
      picture(
        "The lamp",
        [
          area("h4", "Its glass", web("glass"), {
            points: [
              [0.3, 0.3],
              [0.7, 0.6],
            ],
          }),
        ],
        [schema.mark("link", { id: "l23", destination: web("lamp") })],
      ),
    ),
    text(
      onMast("The "),
      onMast("mast", strong),
      onMast(" lamp", emphasis),
      onMast("2", schema.mark("superscript")),
      " ",
      schema.node("hard_break"),
      "burns 10",
      schema.text("3", [schema.mark("superscript")]),
      " times, H",
      schema.text("2", [schema.mark("subscript")]),
      "O or not, ",
      schema.text("hourly", [schema.mark("strike")]),
      " ",
      schema.text("nightly", [schema.mark("underline")]),
      ", says ",
      schema.text("Orla", [schema.mark("small_caps")]),
      ".",
    ),
  );
  const apart = chapter(
    "apart",
    "Words",
    text("A causeway is bare at ", linkTo("l14", "bare", "low water"), "."),
  );
  const book = bookWith([walks, questions, inns, gear, chapterSetApart(), apart], {
    conventions: { ...defaultConventions, headings: 3 },
    files: new Map([["plan", { name: "Plan №1.txt", mediaType: "text/plain", size: 4 }]]),
    fileBytes: new Map([["plan", Buffer.from("plan")]]),
    pictures: [{ id: "dot", mediaType: "image/png", bytes: redDot }],
    ...more,
  });
  book.chapters.at(-1)!.role = "companion";
  return book;
}
