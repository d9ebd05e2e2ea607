import { expect, test } from "@jest/globals";
import type { Root } from "hast";
import { raw } from "hast-util-raw";
import type { Node } from "prosemirror-model";
import { bring, linksIn } from "../../test/brought.ts";
import { smallEpub } from "../../test/small-epub.ts";
import { pasted } from "../pasted/pasted.ts";

const page = (body: string): Uint8Array =>
  new TextEncoder().encode(`<!doctype html><html lang="en"><body><h1>Tides</h1>${body}</body></html>`);

/** Each block with its words, in which a break is a stroke. */
function blocks(node: Node): string[] {
  if (node.type.name === "code_block") return [JSON.stringify(node.textContent)];
  if (node.isTextblock)
    return [node.children.map((one) => (one.type.name === "hard_break" ? "|" : one.textContent)).join("")];
  return node.children.flatMap((one) =>
    blocks(one).map((words) => (node.type.name === "list_item" ? `- ${words}` : words)),
  );
}
const broughtBlocks = async (body: string): Promise<string[]> =>
  blocks((await bring(page(body))).chapters[0]!).slice(1);

test.each<[string, string, string[]]>([
  ["at the end of a paragraph", "<p>Ebb<br></p><p>Flow <b>now<br></b></p>", ["Ebb", "Flow now"]],
  [
    "alone in a block, to keep others apart",
    "<p>Ebb</p><p><br></p><div><br>\n</div><p>Flow</p>",
    ["Ebb", "Flow"],
  ],
  ["before and behind a block", "Ebb<br><p>Flow</p><br>Low<br>", ["Ebb", "Flow", "Low"]],
  ["two between words", "<div>Ebb<br>\n<br>Flow<br>low</div>", ["Ebb", "Flow|low"]],
  ["three in a paragraph", "<p>Ebb<br><br><br>Flow</p>", ["Ebb", "Flow"]],
  ["two in an item", "<ul><li>Ebb<br><br>Flow</li></ul>", ["- Ebb", "- Flow"]],
  ["two in a cell, which has lines", "<table><tr><td>Ebb<br><br>Flow<br></td></tr></table>", ["Ebb||Flow"]],
  ["one between words", "<p>Ebb<br>flow</p>", ["Ebb|flow"]],
  ["in a listing", "<pre>ebb<br>flow<br><br>low</pre>", ['"ebb\\nflow\\n\\nlow"']],
])("breaks %s are what a page shows of them", async (_where, body, then) => {
  expect(await broughtBlocks(body)).toEqual(then);
});

test("a paragraph that is parted keeps how it is set, and its name leads to its first words", async () => {
  const body = '<p id="ebb" align="center">Ebb<br><br><a href="#ebb">up</a><br></p>';
  const { chapters, arrival } = await bring(page(body));
  const paragraphs = chapters[0]!.children.filter(({ type }) => type.name === "paragraph");
  expect(paragraphs.map(({ attrs }) => attrs["align"])).toEqual(["center", "center"]);
  expect(paragraphs[0]!.firstChild!.type.name).toBe("anchor");
  expect(await linksIn(page(body))).toEqual([["up", "→ ebb"]]);
  expect(arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0 });
});

test("in e-books and from the clipboard as in pages", async () => {
  const body = "<p>Ebb<br/><br/>Flow<br/></p><p><br/></p>";
  const [chapter] = (await bring(smallEpub({ "a.xhtml": `<h1>Tides</h1>${body}` }))).chapters;
  expect(blocks(chapter!)).toEqual(["Tides", "Ebb", "Flow"]);
  const tree = raw({ type: "root", children: [{ type: "raw", value: body }] } as unknown as Root) as Root;
  expect(pasted(tree).content.content.flatMap(blocks)).toEqual(["Ebb", "Flow"]);
});
