import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { bring, linksIn } from "../../test/brought.ts";

const bytes = (page: string): Uint8Array =>
  Uint8Array.from(Buffer.from(`<!doctype html><html><body lang=EN-GB>${page}</body></html>`));
/** A paragraph as text programs save an item: its sign, then small blanks that cannot be broken. */
const item = (sign: string, words: string, style = "", font = ""): string =>
  `<p class=MsoListParagraphCxSpMiddle style='${style}text-indent:-18.0pt'>${
    font === "" ? sign : `<span style='font-family:${font}'>${sign}`
  }<span style='font:7.0pt "Times New Roman"'>&nbsp;&nbsp;&nbsp; </span>${font === "" ? "" : "</span>"}${words}</p>`;

/** A list as its kind with its items, or the words of any other block. */
function outlined(node: Node): unknown {
  if (!/_list$/.test(node.type.name)) return node.textContent;
  return [node.type.name, ...node.children.map((one) => one.children.map(outlined))];
}

// The shape of such paragraphs is common practice of text programs that save pages.
test("paragraphs that are items of lists become these lists, one in the other, without their signs", async () => {
  const page =
    "<h1>Tides</h1><p>Take:</p>" +
    item("·", 'A <a href="https://maps.example/">map</a>', "", "Symbol") +
    item("o", "Of the sands", "margin-left:72.0pt;", '"Courier New"') +
    item("§", "Of the Ebb", "margin-left:108.0pt;", "Wingdings") +
    item("·", "Water", "", "Symbol") +
    item("1.", "Wait") +
    item("2.", "Walk") +
    "<p>Then rest.</p>" +
    item("b)", "Again") +
    `<p class=MsoListParagraph>No sign, no item.</p>`;
  const { chapters, language, leftOut, arrival } = await bring(bytes(page));
  expect(language).toBe("en-GB");
  expect(leftOut).toEqual([]);
  expect(chapters[0]!.children.slice(1).map(outlined)).toEqual([
    "Take:",
    ["bullet_list", ["A map", ["bullet_list", ["Of the sands", ["bullet_list", ["Of the Ebb"]]]]], ["Water"]],
    ["ordered_list", ["Wait"], ["Walk"]],
    "Then rest.",
    ["ordered_list", ["Again"]],
    "No sign, no item.",
  ]);
  expect(arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0 });
});

test("signs of items are no letters to either reader", async () => {
  const page = `<h1 id="ebb">Ebb</h1>${item("o", "Of the sands", "", '"Courier New"')}<p><a href="#ebb">up</a></p>`;
  expect((await bring(bytes(page))).arrival!.counts).toMatchObject({ intact: 1, changed: 0 });
});

test("lines of contents, by their class, become a list that follows the headings", async () => {
  const line = (to: string, words: string): string =>
    `<p class=MsoToc1><a href="#${to}">${words}<span>. . . </span>3</a></p>`;
  const page = `${line("a", "Low water")}\n${line("b", "Ways")}<h1><a name="a">Low water</a></h1><p>Sands.</p><h1><a name="b"></a>Ways</h1><p>By foot.</p>`;
  const { chapters, arrival } = await bring(bytes(page));
  const types = chapters[0]!.children.map(({ type }) => type.name);
  expect(types).toContain("signposts");
  expect(chapters[0]!.textContent).not.toContain("Ways");
  expect(arrival!.counts).toMatchObject({ lost: 0, extra: 0, changed: 0 });
});

test("a font within symbols is that font, and a blank of theirs is a blank", async () => {
  const page = `<h1>T</h1><p><span style="font-family:Symbol">a<span style='font:7.0pt "Times New Roman"'>&nbsp;b</span>&nbsp;</span>end</p>`;
  const { chapters } = await bring(bytes(page));
  expect(chapters[0]!.child(1).textContent).toBe("α\u00a0b\u00a0end");
  expect(await linksIn(bytes(page))).toEqual([]);
});
