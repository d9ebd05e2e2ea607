import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { bookWith, chapter, text } from "../../../test/book-of-places.ts";
import { readHref } from "../../../destination/destination.ts";
import { schema } from "../../../manuscript/schema.ts";
import { prove } from "../../../proof/prove.ts";
import { bring } from "../../../test/brought.ts";
import { redDot } from "../../../test/red-dot.ts";
import { readMarkdown } from "./read-back.ts";
import { writeMarkdown } from "./write-markdown.ts";

test("addresses that are no links in a book are none in its Markdown, nor when it comes back", async () => {
  const words = [
    "Ask https://tides.example/a_b (or www.tides.example).",
    "[https://tides.example/] [www.tides.example/x*y*] [clerk@tides.example]",
    "mailto:clerk@tides.example, a_b@tides.example",
    "They are on the WWW. A copy is on www.",
  ];
  const book = bookWith([chapter("c1", "Tides", ...words.map((one) => text(one)))]);
  const { bytes } = writeMarkdown(book, "walks.md");
  expect(readMarkdown(bytes)).toMatchObject({ links: [], faults: [] });
  const { chapters, arrival } = await bring(bytes);
  expect(chapters[0]!.children.slice(1).map(({ textContent }) => textContent)).toEqual(words);
  expect(arrival!.links).toEqual([]);
});

test("a linked picture of a chosen width says what its alternative is", () => {
  const link = schema.mark("link", {
    id: "l1",
    destination: { kind: "web", address: "https://tides.example/" },
  });
  const picture = schema.node("picture", { file: "dot", alt: "The chart", width: 60 }, undefined, [link]);
  const book = bookWith([chapter("c1", "Tides", text(picture))], {
    pictures: [{ id: "dot", mediaType: "image/png", bytes: redDot }],
  });
  const { bytes } = writeMarkdown(book, "walks.md");
  const reading = readMarkdown(bytes);
  expect(reading.links.map((one) => one.text)).toEqual(["The chart"]);
  expect(prove(book, reading).complete).toBe(true);
});

// CommonMark 0.31, 6.5: what an address between angle brackets is.
test.each([
  "mailto:clerk@tides.example.",
  "mailto:the_clerk@tides.example",
  "mailto:clerk@-tides.example",
  "mailto:clerk@[192.0.2.1]",
  "mailto:clerk@fähre.example",
  "https://tides.example/a b",
  "https://tides.example/hours",
])("a link that says its own address leads to %s", async (to) => {
  const words = to.replace("mailto:", "");
  const destination = readHref(to, null);
  const linked = schema.text(words, [schema.mark("link", { id: "l1", destination })]);
  const book = bookWith([chapter("c1", "Tides", text("Ask "), text(linked), text("Go."))]);
  const { bytes } = writeMarkdown(book, "walks.md");
  expect(prove(book, readMarkdown(bytes))).toMatchObject({ complete: true, total: 1 });
  const { arrival } = await bring(bytes);
  expect(arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0 });
});

test("captions and headings in cells are places, and captions come back", async () => {
  const picture = schema.node("picture", { file: "dot", alt: "The chart" });
  const caption = schema.node("caption", { id: "chart", of: "figure" }, schema.text("Soundings"));
  const heading = schema.node("heading", { id: "low", level: 2 }, schema.text("Low water"));
  const cell = (...blocks: Node[]) => schema.node("table_cell", null, blocks);
  const table = schema.node("table", null, [
    schema.node("table_row", null, [cell(text(picture), caption), cell(heading, text("Bare stones."))]),
  ]);
  const to = (target: string, words: string) =>
    schema.text(words, [schema.mark("link", { id: target, destination: { kind: "place", target } })]);
  const book = bookWith(
    [chapter("c1", "Tides", text(to("chart", "the chart"), schema.text(" "), to("low", "low water")), table)],
    {
      pictures: [{ id: "dot", mediaType: "image/png", bytes: redDot }],
    },
  );
  const { bytes } = writeMarkdown(book, "walks.md");
  expect(prove(book, readMarkdown(bytes))).toMatchObject({ complete: true, total: 2 });
  const { chapters, arrival } = await bring(bytes);
  expect(arrival!.counts).toMatchObject({ intact: 2, lost: 0, extra: 0, changed: 0 });
  const captions: string[] = [];
  chapters[0]!.descendants(
    ({ type, textContent }) => void (type.name === "caption" && captions.push(textContent)),
  );
  expect(captions).toEqual(["Soundings"]);
});
