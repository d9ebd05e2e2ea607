import { expect, test } from "@jest/globals";
import { bring } from "../../test/brought.ts";
import { document, p, t } from "../../test/small-docx.ts";

const mark = (kind: string): string => `<w:r><w:fldChar w:fldCharType="${kind}"/></w:r>`;
const said = (words: string): string => `<w:r><w:instrText>${words}</w:instrText></w:r>`;
const link = (words: string): string => `<w:hyperlink r:id="o">${words}</w:hyperlink>`;
const links = { o: "https://tides.example/" };

async function read(body: string): Promise<{ blocks: string[]; arrival: string[]; leftOut: string[] }> {
  const { chapters, arrival, leftOut } = await bring(document(body, {}, links));
  return {
    blocks: chapters.flatMap((doc) => doc.children.slice(1).map((block) => block.textContent)),
    arrival: arrival!.links.map(({ words, verdict }) => `${words}: ${verdict}`),
    leftOut: leftOut.map(({ sort }) => sort),
  };
}

test("a field that never ends takes nothing of what follows", async () => {
  const begins = mark("begin") + said('HYPERLINK "https://lost.example/"');
  const after = p(t("Low water at "), link(t("nine")), t("."));
  for (const unended of [
    p(t("See "), begins, t("the tables.")),
    p(t("See "), begins, mark("separate"), t("the tables.")),
    `<w:tbl><w:tr><w:tc>${p(t("See "), begins, t("the tables."))}</w:tc></w:tr></w:tbl>`,
    // The end in another cell is not its own.
    `<w:tbl><w:tr><w:tc>${p(t("See "), begins, t("the tables."))}</w:tc><w:tc>${p(mark("end"))}</w:tc></w:tr></w:tbl>`,
    // Nor is one before it.
    p(mark("end"), t("See "), begins, t("the tables.")),
    p(t("See "), `<w:del>${begins}</w:del>`, t("the tables."), mark("end")),
  ]) {
    const { blocks, arrival } = await read(unended + after);
    expect(blocks.join(" ")).toMatch(/See the tables\..*Low water at nine\./);
    expect(arrival).toEqual(["nine: intact"]);
  }
});

test("one that has no end within a field that has leaves that one its link", async () => {
  const outer = [
    mark("begin"),
    said('HYPERLINK "https://tides.example/hours"'),
    mark("separate"),
    t("the hours"),
    mark("end"),
  ].join("");
  const { arrival } = await read(p(mark("begin"), said("REF"), t(" of "), outer));
  expect(arrival).toEqual(["the hours: intact"]);
});

// Places of these fonts: the fonts’ own tables, from memory.
test("signs of fonts of symbols are the letters that readers see", async () => {
  const sign = (font: string, char: string): string =>
    `<w:r><w:sym w:font="${font}" w:char="${char}"/></w:r>`;
  const run = (font: string, words: string): string => t(words, `<w:rFonts w:ascii="${font}"/>`);
  const { blocks, arrival } = await read(
    p(
      link(
        `${t("go ")}${sign("Wingdings", "F0E0")}${sign("Symbol", "F061")}${run("Symbol", "\uf062g")}${sign("Wingdings", "F0FC")}`,
      ),
      run("Wingdings", "\uf0df à"),
      run("Garamond", " abc"),
    ),
  );
  expect(blocks).toEqual(["go →αβγ✓← → abc"]);
  expect(arrival).toEqual(["go →αβγ✓: intact"]);
});

test("how letters are read stands in brackets behind them", async () => {
  const ruby = (base: string, reading: string): string =>
    `<w:r><w:ruby><w:rubyPr/><w:rt>${t(reading)}</w:rt><w:rubyBase>${t(base)}</w:rubyBase></w:ruby></w:r>`;
  const { blocks, arrival } = await read(
    p(link(ruby("東", "とう") + ruby("京", "きょう")), t(" "), ruby("ebb", "eb")),
  );
  expect(blocks).toEqual(["東（とう）京（きょう） ebb(eb)"]);
  expect(arrival).toEqual(["東（とう）京（きょう）: intact"]);
});

test("a first letter that is set over several lines begins its paragraph", async () => {
  const drop = `<w:p><w:pPr><w:framePr w:dropCap="drop" w:lines="3"/></w:pPr>${t("O")}</w:p>`;
  expect((await read(drop + p(t("nce upon a "), link(t("tide"))) + p(t("After.")))).blocks).toEqual([
    "Once upon a tide",
    "After.",
  ]);
});

test("columns that a row leaves out are empty, and a document within the document is told", async () => {
  const row = (more: string, ...cells: string[]): string =>
    `<w:tr>${more}${cells.map((words) => `<w:tc>${p(t(words))}</w:tc>`).join("")}</w:tr>`;
  const gap = '<w:trPr><w:gridBefore w:val="2"/></w:trPr>';
  const body = `<w:tbl>${row("", "a", "b", "c")}${row(gap, "d")}</w:tbl><w:altChunk r:id="o"/>`;
  const { chapters, leftOut } = await bring(document(body, {}, links));
  const table = chapters[0]!.child(1);
  expect(table.child(1).children.map((cell) => [cell.textContent, cell.attrs["colspan"]])).toEqual([
    ["", 2],
    ["d", 1],
  ]);
  expect(leftOut.map(({ sort }) => sort)).toEqual(["Other documents within it"]);
});
