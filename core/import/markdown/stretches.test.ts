import { describe, expect, test } from "@jest/globals";
import spec from "commonmark-spec";
import { linksOfHtml } from "../arrival/links-of-html.ts";
import { htmlOfMarkdown, isOfNote } from "./second-reading.ts";
import { definitionsIn, stretchesOf } from "../../markdown/stretches.ts";
import { treeOfMarkdown } from "./tree-of-markdown.ts";

// CommonMark 0.31, its own examples behind each other: fences, comments and lists that are open where the next begins.
const examples = spec.tests.map(({ markdown }) => markdown);
const texts = Array.from({ length: 60 }, (_, i) =>
  examples.filter((_example, at) => at % 60 === i).join("\n\n"),
);
const withNotes = `Read the [tables][t], the note[^a] and [seen][late].

> [t]: https://tides.example/tables
> 'Tables'

[^a]: The *office* [knows](https://office.example/).

    And more of it.

Words[^b] between.

# Sands

[late]:
  <https://late.example/a b>
"Late
in the day"

[see [tables][T] too](https://other.example/), and [no [such] thing](https://plain.example/).

\`\`\`
[such]: https://code.example/

Still code.
\`\`\`

[^b]: Below.
<div>

Inside [the box][t].

</div>

Last, [late][].`;

// What opens code has no definition, and what seems to be one stands behind an empty line in it.
const codeFirst = `See [the slip].

~~~
Code begins.

[the slip]: https://code.example/
~~~

And [the slip] again.`;

describe("a text parsed in stretches is the same as parsed whole", () => {
  test.each([...texts.entries()])("CommonMark’s examples, part %i", (_i, text) => {
    expect(stretchesOf(text, 1).length).toBeGreaterThan(2);
    expect(treeOfMarkdown(text, 1).children).toEqual(treeOfMarkdown(text, Infinity).children);
  });

  test("labels and notes are known in each, wherever they are defined; code defines none", () => {
    for (const text of [withNotes, codeFirst])
      expect(treeOfMarkdown(text, 1).children).toEqual(treeOfMarkdown(text, Infinity).children);
    expect(treeOfMarkdown(withNotes.replaceAll("\n", "\r\n"), 1).children).toEqual(
      treeOfMarkdown(withNotes.replaceAll("\n", "\r\n"), Infinity).children,
    );
    expect(definitionsIn(withNotes).map(({ name }) => name)).toEqual(["t", "^a", "late", "such", "^b"]);
  });

  test("its second reader finds the same links, with the same words where they land", () => {
    const links = (text: string, length: number) =>
      linksOfHtml(htmlOfMarkdown(text, length), { isOfNote, hasSlugs: true }).map((link) => ({
        ...link,
        words: link.words.replace(/\s+/g, " "),
        where: null,
      }));
    // Notes are read behind all stretches, so that what stands before a link may be more or less.
    const sorted = (found: ReturnType<typeof links>) =>
      found.map((link) => JSON.stringify({ ...link, at: 0, to: link.to === null ? null : 0 })).sort();
    for (const text of [...texts, withNotes, codeFirst])
      expect(sorted(links(text, 1))).toEqual(sorted(links(text, Infinity)));
  });
});

test("stretches together are the text, and none is cut within a list, a quote or a note", () => {
  for (const text of [...texts, withNotes]) expect(stretchesOf(text, 1).join("")).toBe(text);
  expect(stretchesOf("- a\n\n- b\n\n  c\n\n> d\n\n1. e\n\nf", 1)).toEqual([
    "- a\n\n- b\n\n  c\n\n> d\n\n1. e\n\n",
    "f",
  ]);
});
