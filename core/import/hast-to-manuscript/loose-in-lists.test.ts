import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { importManuscript } from "../import-manuscript.ts";

/** What a page of HTML becomes, without ids: `‡` is an anchor. */
async function broughtIn(html: string): Promise<string> {
  const page = `<h1>Walks</h1>${html}<p><a href="#refuge">The refuge</a></p>`;
  const { chapters, arrival } = await importManuscript(
    { name: "walks.html", bytes: new TextEncoder().encode(page) },
    { fallbackTitle: "Walks", baseAddress: null, pictureFor: () => null },
  );
  expect(arrival!.counts.lost).toBe(0);
  const shown = (node: Node): string => {
    if (node.isText) return node.text!;
    if (node.type.name === "anchor") return "‡";
    const inside = node.children.map(shown);
    return node.isTextblock ? inside.join("") : `${short[node.type.name]}[${inside.join(", ")}]`;
  };
  return chapters[0]!.children.slice(1, -1).map(shown).join(" ");
}
const short: Record<string, string> = {
  bullet_list: "ul",
  ordered_list: "ol",
  list_item: "li",
  definition_list: "dl",
  definition: "dd",
};

// HTML lets nothing stand between the items of a list (4.4.5 to 4.4.9), and every parser takes it.
test.each([
  ["words before items", "<ul>Bring <li>a watch</li></ul>", "ul[li[Bring], li[a watch]]"],
  [
    "words behind an item",
    "<ol><li>Cross</li>in <b>daylight</b><li>Rest</li></ol>",
    "ol[li[Cross, in daylight], li[Rest]]",
  ],
  ["a list in a list", "<ul><li>Cross</li><ul><li>slowly</li></ul></ul>", "ul[li[Cross, ul[li[slowly]]]]"],
  ["paragraphs in a list", "<ul><li>Cross</li><p>One</p><p>Two</p></ul>", "ul[li[Cross, One, Two]]"],
  ["a menu", "<menu><li>Cross</li><li>Rest</li></menu>", "ul[li[Cross], li[Rest]]"],
  [
    "words before terms",
    "<dl><p>Of <a href='https://tides.example/'>tides</a></p><dt>Ebb</dt><dd>Out</dd></dl>",
    "dl[dd[Of tides], Ebb, dd[Out]]",
  ],
  ["words behind a term", "<dl><dt>Ebb</dt>falling<dd>Out</dd></dl>", "dl[Ebb, dd[falling], dd[Out]]"],
  ["a list of terms without any", "<dl><p>One</p><p>Two</p></dl>", "One Two"],
  [
    "loose words in a group of terms",
    "<dl><div><dt>Ebb</dt><dd>Out</dd>and gone</div></dl>",
    "dl[Ebb, dd[Out], dd[and gone]]",
  ],
  [
    "a place before a term",
    "<dl><a name='refuge'></a><dt><p>Hut</p></dt><dd>On stilts</dd></dl>",
    "dl[‡Hut, dd[On stilts]]",
  ],
  [
    "a place in a paragraph of its own before a term",
    "<dl><dt>Ebb</dt><dd>Out</dd><p><a name='refuge'></a></p><dt>Hut</dt><dd>On stilts</dd></dl>",
    "dl[Ebb, dd[Out], ‡Hut, dd[On stilts]]",
  ],
  [
    "a place behind all",
    "<dl><dt>Hut</dt><dd>On stilts</dd><a id='refuge'></a></dl>",
    "dl[Hut, dd[On stilts‡]]",
  ],
  [
    "a place before a paragraph between terms",
    "<dl><dt>Hut</dt><a name='refuge'></a><p>on stilts</p><dd>Dry</dd></dl>",
    "dl[Hut, dd[‡on stilts], dd[Dry]]",
  ],
  ["a place in a list that has nothing else", "<ul><a name='refuge'></a></ul>", "ul[li[‡]]"],
  [
    "terms in a list between terms",
    "<dl><dt>Ebb</dt><ul><li>of two<dl><dt>Neap</dt><dd>Low</dd></dl></li></ul></dl>",
    "dl[Ebb, dd[ul[li[of two, dl[Neap, dd[Low]]]]]]",
  ],
  ["a place before an item", "<ul><a name='refuge'></a><li>Hut</li></ul>", "ul[li[‡Hut]]"],
  ["a place before words", "<ul><li>Hut</li><a name='refuge'></a>on stilts</ul>", "ul[li[Hut, ‡on stilts]]"],
])("%s: nothing is lost", async (_, html, expected) => {
  expect(await broughtIn(html)).toBe(expected);
});
