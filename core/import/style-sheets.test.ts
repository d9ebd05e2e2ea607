import { describe, expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import type { Node } from "prosemirror-model";
import { bring } from "../test/brought.ts";
import { smallEpub } from "../test/small-epub.ts";

/** Stretches of words with their marks, in the blocks of the first chapter behind its title. */
async function marked(bytes: Uint8Array): Promise<string[]> {
  const { chapters } = await bring(bytes);
  const words = (block: Node): string =>
    block.children
      .map(({ text, marks }) => {
        const names = marks.map(({ type }) => type.name).filter((name) => name !== "link");
        return names.length === 0 ? text : `<${names.join(" ")}>${text}</>`;
      })
      .join("");
  return chapters[0]!.children.slice(1).map((block) => {
    const align = block.attrs["align"] as string | null;
    return `${align ? `${align}: ` : ""}${words(block)}`;
  });
}
const page = (styles: string, body: string): Uint8Array =>
  strToU8(`<!doctype html><html lang="en"><head>${styles}</head><body><h1>Tides</h1>${body}</body></html>`);
const inside = (css: string, body: string): Promise<string[]> => marked(page(`<style>${css}</style>`, body));

describe("words are as style sheets show them", () => {
  test.each<[string, string, string, string]>([
    ["bold", ".b{font-weight:700}", '<p>It <span class="b">ebbs</span>.</p>', "It <strong>ebbs</>."],
    ["italic", "span.i{font-style:italic}", '<p><span class="i">Ebb</span></p>', "<emphasis>Ebb</>"],
    ["raised", ".s{vertical-align:super}", '<p>4<span class="s">th</span></p>', "4<superscript>th</>"],
    ["struck", ".t{text-decoration:line-through}", '<p><span class="t">a</span></p>', "<strike>a</>"],
    ["small caps", ".c{font-variant:small-caps}", '<p><span class="c">a</span></p>', "<small_caps>a</>"],
    ["centred", ".m{text-align:center}", '<p class="m">Ebb</p>', "center: Ebb"],
    ["justified, as a book decides", ".j{text-align:justify}", '<p class="j">Ebb</p>', "Ebb"],
    [
      "italic, a whole paragraph but for some",
      ".i{font-style:italic}.n{font-style:normal}",
      '<p class="i">Ebb <span class="n">and</span> flow</p>',
      "<emphasis>Ebb </>and<emphasis> flow</>",
    ],
    ["upright in emphasis", ".n{font-style:normal}", '<p><em class="n">a</em></p>', "a"],
    [
      "by two classes",
      ".a.b{font-weight:bold}",
      '<p><i class="b a">a</i><i class="a">b</i></p>',
      "<emphasis strong>a</><emphasis>b</>",
    ],
    [
      "within others",
      ".q .w{font-weight:bold}",
      '<p class="q"><u><span class="w">a</span></u></p>',
      "<strong underline>a</>",
    ],
    ["not outside these", ".q .w{font-weight:bold}", '<p><span class="w">a</span></p>', "a"],
    [
      "right within others",
      ".q > .w{font-weight:bold}",
      '<p class="q"><span class="w">a</span><u><span class="w">b</span></u></p>',
      "<strong>a</><underline>b</>",
    ],
    [
      "by the rule that counts more",
      "span.a{font-weight:bold}.a{font-weight:normal}",
      '<p><span class="a">a</span></p>',
      "<strong>a</>",
    ],
    [
      "by the later of two alike",
      ".a{font-weight:bold}.b{font-weight:normal}",
      '<p><span class="b a">a</span></p>',
      "a",
    ],
    [
      "by their own style before any",
      ".a{font-weight:bold}",
      '<p><span class="a" style="font-weight:normal">a</span></p>',
      "a",
    ],
    [
      "not on paper or under a pointer",
      "@media print{.a{font-weight:bold}}.a:hover{font-style:italic}",
      '<p><span class="a">a</span></p>',
      "a",
    ],
    [
      "in headings as headings",
      ".a{font-weight:bold;font-style:italic}",
      '<h2><span class="a">a</span></h2>',
      "<emphasis>a</>",
    ],
    [
      "behind what cannot be read",
      "<!-- .x{color:red} -->\n.a{font-weight:bold}\n}} .b{",
      '<p><span class="a">a</span></p>',
      "<strong>a</>",
    ],
  ])("%s", async (_how, css, body, then) => {
    expect(await inside(css, body)).toEqual([then]);
  });

  test("of links only what is no link’s look", async () => {
    const body = '<p><span class="l"><a href="https://tides.example/">a</a></span></p>';
    expect(await inside(".l{text-decoration:underline;font-style:italic}", body)).toEqual(["<emphasis>a</>"]);
  });

  test("by sheets of a folder and of an e-book, in the folders in which they are", async () => {
    const css = strToU8(".i{font-style:italic}");
    const body = '<p><span class="i">Ebb</span></p>';
    const folder = {
      "pages/a.html": page('<link rel="stylesheet" href="../looks/a%20b.css">', body),
      "looks/a b.css": css,
    };
    expect(await marked(zipSync(folder))).toEqual(["<emphasis>Ebb</>"]);
    const head =
      '<head><title>x</title><link rel="stylesheet" type="text/css" href="../looks/a.css"/></head>';
    const xhtml = `<html xmlns="http://www.w3.org/1999/xhtml">${head}<body><h1>Tides</h1>${body}</body></html>`;
    const epub = smallEpub({ "a.xhtml": "" }, { "OPS/text/a.xhtml": strToU8(xhtml), "OPS/looks/a.css": css });
    expect(await marked(epub)).toEqual(["<emphasis>Ebb</>"]);
  });
});

test("each word has the rules of its own classes among very many", async () => {
  const css = Array.from({ length: 20_000 }, (_, i) => `.c${i} .d${i}{font-weight:bold}`).join("\n");
  const body = Array.from({ length: 300 }, (_, i) => `<p class="c${i}"><i class="d${i}">a</i></p>`).join("");
  expect((await inside(css, body)).every((block) => block === "<emphasis strong>a</>")).toBe(true);
});
