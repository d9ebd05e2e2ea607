import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { bring } from "../test/brought.ts";
import { smallEpub } from "../test/small-epub.ts";

const page = (ruby: string): string =>
  `<h1>Tides</h1><p>See <a href="https://tides.example/">${ruby}</a>.</p>`;
const odt = (words: string): Uint8Array =>
  zipSync({
    mimetype: [strToU8("application/vnd.oasis.opendocument.text"), { level: 0 }],
    "content.xml": strToU8(
      `<?xml version="1.0"?><office:document-content ${["office", "text", "xlink", "style", "fo"].map((name) => `xmlns:${name}="urn:${name}"`).join(" ")}><office:automatic-styles><style:style style:name="T1" style:family="text"><style:text-properties style:font-name="Wingdings"/></style:style><style:style style:name="T2" style:family="text"><style:text-properties fo:font-family="Symbol"/></style:style></office:automatic-styles><office:body><office:text><text:h text:outline-level="1">Tides</text:h><text:p>See <text:a xlink:href="https://tides.example/">${words}</text:a>.</text:p></office:text></office:body></office:document-content>`,
    ),
  });
const inOdt = (ruby: string): string =>
  ruby
    .replace(/<(\/?)ruby>/g, "<$1text:ruby>")
    .replace(/<(\/?)rt>/g, "<$1text:ruby-text>")
    .replace(/<(\/?)rb>/g, "<$1text:ruby-base>");

async function read(bytes: Uint8Array): Promise<string[]> {
  const { chapters, arrival } = await bring(bytes);
  return [
    chapters[0]!.lastChild!.textContent,
    ...arrival!.links.map(({ words, verdict }) => `${words}: ${verdict}`),
  ];
}

// WHATWG HTML, 4.5.10: what `rp` is for (from memory).
test.each([
  ["<ruby><rb>東</rb><rt>とう</rt></ruby><ruby><rb>京</rb><rt>きょう</rt></ruby>", "東（とう）京（きょう）"],
  ["the <ruby><rb>ebb</rb><rt>eb</rt></ruby>", "the ebb(eb)"],
  ["<ruby><rb>潮</rb><rt></rt></ruby>", "潮"],
])("how letters are read stands in brackets behind them: %s", async (ruby, words) => {
  const expected = [`See ${words}.`, `${words}: intact`];
  const html = strToU8(`<!doctype html><html><body>${page(ruby)}</body></html>`);
  expect(await read(html)).toEqual(expected);
  expect(await read(smallEpub({ "a.xhtml": page(ruby) }))).toEqual(expected);
  expect(await read(odt(inOdt(ruby)))).toEqual(expected);
});

test("brackets that a page gives are its own", async () => {
  const ruby = "<ruby>東<rp>[</rp><rt>とう</rt><rp>]</rp></ruby>";
  const expected = ["See 東[とう].", "東[とう]: intact"];
  expect(await read(strToU8(`<!doctype html><html><body>${page(ruby)}</body></html>`))).toEqual(expected);
  expect(await read(smallEpub({ "a.xhtml": page(ruby) }))).toEqual(expected);
});

test("signs of fonts of symbols are the letters that readers see", async () => {
  const words = `go <span style="color:red; font-family:'Wingdings', serif">à</span><font face="Symbol">a<b>b</b></font>`;
  const expected = ["See go →αβ.", "go →αβ: intact"];
  expect(await read(strToU8(`<!doctype html><html><body>${page(words)}</body></html>`))).toEqual(expected);
  expect(await read(smallEpub({ "a.xhtml": page(words) }))).toEqual(expected);
  const signs =
    'go <text:span text:style-name="T1">\uf0e0</text:span><text:span text:style-name="T2">\uf061b</text:span>';
  expect(await read(odt(signs))).toEqual(expected);
});
