import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import type { Node } from "prosemirror-model";
import { linkUses } from "../../manuscript/links.ts";
import { writeDocx } from "../../publish/formats/docx/write-docx.ts";
import { writeEpub } from "../../publish/formats/epub/write-epub.ts";
import { writeOdt } from "../../publish/formats/odt/write-odt.ts";
import { bookWith, chapter, text } from "../../test/book-of-places.ts";
import { bring } from "../../test/brought.ts";
import { schema } from "../../manuscript/schema.ts";

const chaptersOf = async (bytes: Uint8Array): Promise<Node[]> => {
  const { chapters, arrival } = await bring(bytes);
  expect(arrival!.counts).toMatchObject({ changed: 0, lost: 0, extra: 0 });
  return chapters;
};

/** What a file becomes: blocks with their words, an anchor as “‡”, what links lead to as “◊” before its words. */
function shown(chapters: readonly Node[]): string {
  const led = new Set(
    chapters.flatMap((doc) =>
      linkUses(doc).map(({ destination }) => Object.values(destination)[1] as string),
    ),
  );
  const inside = (node: Node): string => {
    if (node.isText) return node.text!;
    if (node.type.name === "anchor") return "‡";
    const words = node.children.map(inside).join(node.isTextblock ? "" : ", ");
    const mark = led.has(node.attrs["id"] as string) ? "◊" : "";
    return node.isTextblock || node.isLeaf
      ? `${mark}${words || node.type.name}`
      : `${node.type.name}(${words})`;
  };
  return chapters.map((doc) => doc.children.map(inside).join(" / ")).join(" // ");
}

const jump = (to: string): string => `<a href="#${to}">${to}</a>`;

test.each([
  ["a paragraph", "<a id='a'></a><p>Sand</p>", "‡Sand"],
  ["several of them", "<a name='a'></a><a id='b'></a>\n<div><p>Sand</p></div>", "‡‡Sand"],
  ["a heading, which is a place itself", "<a id='a'></a><h2>Refuges</h2>", "◊Refuges"],
  ["a paragraph of its own", "<p><a name='a'></a></p><h2>Refuges</h2>", "◊Refuges"],
  ["a rule", "<a id='a'></a><hr><h2>Refuges</h2>", "section_break / ◊Refuges"],
  ["a list", "<a id='a'></a><ul><li>Hut</li></ul>", "bullet_list(list_item(‡Hut))"],
  [
    "the next item",
    "<ul><li>Hut<a id='b'></a><p></p><span id='a'></span></li><li>Post</li></ul>",
    "bullet_list(list_item(Hut‡), list_item(‡Post))",
  ],
  ["terms", "<a id='a'></a><dl><dt>Ebb</dt><dd>Low</dd></dl>", "definition_list(‡Ebb, definition(Low))"],
  ["a table", "<a id='a'></a><table><tr><th>Hut</th></tr></table>", "table(table_row(table_header(‡Hut)))"],
  [
    "the caption above a table",
    "<p id='a'></p><table><caption>Tides</caption><tr><td>9</td></tr></table>",
    "◊Tides / table(table_row(table_cell(9)))",
  ],
  ["a listing, which holds none", "<a id='a'></a><pre>walk</pre>", "‡ / walk"],
  [
    "a formula on a line of its own",
    "<a id='a'></a><div><math display='block'><mi>x</mi></math></div>",
    "‡ / formula",
  ],
  ["nothing", "<p>Sand</p><a id='a'></a>", "Sand / ‡"],
])("an anchor alone before %s", async (_, html, expected) => {
  const links = `<p>${jump("a")}${html.includes("id='b'") ? jump("b") : ""}</p>`;
  const page = `<!doctype html><h1>Walks</h1>${links}${html}`;
  expect(shown(await chaptersOf(strToU8(page))).replace(/^Walks \/ ab? \/ /, "")).toBe(expected);
});

test("an anchor before a title leads to its chapter; at the end of a page it stays there", async () => {
  const page = (title: string, links: string): string =>
    `<body><a name="top"></a><div><h1>${title}</h1></div><p>${links}</p><a id="end"></a></body>`;
  const links = `<a href="b.html">b</a><a href="b.html#top">t</a><a href="#end">e</a>`;
  const folder = zipSync({
    "a.html": strToU8(page("Ebb", links)),
    "b.html": strToU8(page("Flow", "<a href='#end'>e</a>")),
  });
  expect(shown(await chaptersOf(folder))).toBe("Ebb / bte / ‡ // ◊Flow / e / ‡");
});

test.each([
  ["an e-book", (book) => writeEpub(book)],
  ["a text document", async (book) => (await writeDocx(book, "walks.docx")).bytes],
  ["an OpenDocument text", (book) => writeOdt(book, "walks.odt").bytes],
] as [string, (book: ReturnType<typeof bookWith>) => Uint8Array | Promise<Uint8Array>][])(
  "an anchor to which an author gave a line stays there in %s and back",
  async (_, write) => {
    const anchor = schema.node("anchor", { id: "post", name: "The post" });
    const mark = schema.mark("link", { id: "l1", destination: { kind: "place", target: "post" } });
    const book = bookWith([
      chapter("c", "Walks", text(schema.text("to it", [mark])), text(anchor), text("Sand.")),
    ]);
    expect(shown(await chaptersOf(await write(book)))).toBe("Walks / to it / ‡ / Sand.");
  },
);
