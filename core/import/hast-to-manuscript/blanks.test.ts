import { expect, test } from "@jest/globals";
import { bringIn } from "../../test/sample-book.ts";

/** The paragraph's pieces in a row, those of a link in braces. */
function pieces(markdown: string): string {
  const { chapters } = bringIn(`# Sands\n\n${markdown}`, null, () => "dot");
  const paragraph = chapters[0]!.children.find(({ type }) => type.name === "paragraph")!;
  return paragraph.children
    .map((node) => {
      const shown = node.isText ? node.text! : `<${node.type.name}>`;
      return node.marks.some(({ type }) => type.name === "link") ? `{${shown}}` : shown;
    })
    .join("")
    .replaceAll("}{", "");
}

// Common practice: the link covers the words alone, and no blank before or after them.
test.each([
  ["on both sides", 'To <a href="https://a.example/"> the huts </a>go', "To  {the huts} go"],
  ["around a picture", '<a href="https://a.example/">\n  <img src="d.png" alt="Dot">\n</a>', "{<picture>}"],
  [
    "before words in italics",
    'To <a href="https://a.example/"> <i>the huts</i> by</a> boat',
    "To  {the huts by} boat",
  ],
  ["between its words", "To [the *low* huts](https://a.example/) go", "To {the low huts} go"],
  ["in Markdown", "To [ the huts ](https://a.example/) go", "To  {the huts}  go"],
  ["where there is nothing else", 'To <a href="https://a.example/"> </a>go', "To { }go"],
])("a link's blanks %s", (_, markdown, expected) => {
  expect(pieces(markdown).replace(/ {2,}/g, "  ")).toBe(expected.replace(/ {2,}/g, "  "));
});
