import { expect, test } from "@jest/globals";
import { wordsOfMath, type MathElement } from "../../manuscript/math.ts";
import { bring } from "../../test/brought.ts";

const page = async (body: string) => {
  const { chapters, leftOut } = await bring(
    new TextEncoder().encode(
      `<!doctype html><html lang="en"><title>T</title><body><h1>T</h1>${body}</body></html>`,
    ),
  );
  return { blocks: chapters[0]!.children.slice(1), leftOut };
};

// Roles: DPUB-ARIA 1.1; types: EPUB 3 Structural Semantics Vocabulary 1.1; classes: common practice.
test.each([
  ['<blockquote role="doc-epigraph">a</blockquote>', "epigraph"],
  ['<section epub:type="epigraph">a</section>', "epigraph"],
  ['<div class="poem">a</div>', "verse"],
  ['<aside role="note">a</aside>', "notice"],
  ['<div class="admonition warning">a</div>', "notice"],
  ["<blockquote>a</blockquote>", "quotation"],
])("%s is set off as %s", async (html, kind) => {
  const { blocks } = await page(html);
  expect(blocks.map((node) => [String(node), node.attrs["kind"] as unknown])).toEqual([
    ['blockquote(paragraph("a"))', kind],
  ]);
});

test.each([
  ['<div class="note">a</div>', 'paragraph("a")'],
  ['<p class="verse">a</p>', 'paragraph("a")'],
  ['<p>a</p><p style="page-break-before: always">b</p>', 'paragraph("a"), page_break, paragraph("b")'],
  ['<p style="break-before:page">b</p>', 'paragraph("b")'],
  [
    "<dl><div><dt>a</dt><dt><p>b</p></dt><dd><ul><li>c</ul></dd></div></dl>",
    'definition_list(definition_term("a"), definition_term("b"), definition(bullet_list(list_item(paragraph("c")))))',
  ],
  ["<dl><dt><ul><li>a</ul></dt></dl>", 'definition_list(definition(bullet_list(list_item(paragraph("a")))))'],
  ["<dl></dl><p>a", 'paragraph("a")'],
  [
    '<figure><img src="a.png"><figcaption>b <small class="credit">c</small></figcaption></figure>',
    'paragraph(picture), caption("b"), credit("c")',
  ],
])("%s becomes %s", async (html, expected) => {
  expect((await page(html)).blocks.map(String).join(", ")).toBe(expected);
});

test("tasks are known by their boxes, wherever those stand in the item's first line", async () => {
  const { blocks } = await page(
    '<ul><li><input type="checkbox" checked> a<li><p><input type=checkbox disabled>b</p><li><label><input type=checkbox>c</label><li>d <input type=checkbox></ul>',
  );
  expect(blocks[0]!.children.map((item) => [item.textContent.trim(), item.attrs["done"]])).toEqual([
    ["a", true],
    ["b", false],
    ["c", false],
    ["d ☐", null],
  ]);
});

test.each([
  ["<center>a<p>b</p></center><p>c</p>", ["center", "center", null]],
  [
    '<div align="center"><div><p>a</p></div><p align="left">b</p><p align="right">c</p></div>',
    ["center", null, "end"],
  ],
  [
    '<section style="color: red; text-align: right">a<div style="text-align:start">b</div></section>',
    ["end", null],
  ],
  ['<div class="center"><p>a</p><p class="center">b</p></div>', [null, "center"]],
])("what wraps parts of a page aligns them: %s", async (html, sides) => {
  const { blocks } = await page(html);
  expect(blocks.map(({ attrs }) => attrs["align"] as string | null)).toEqual(sides);
});

test("fields of forms that one writes into are nothing in a book", async () => {
  const { blocks } = await page('<p>Name <input value="x"><input type="radio"> yes</p>');
  expect(blocks.map(({ textContent }) => textContent)).toEqual(["Name ☐ yes"]);
});

// MathML Core and MathML 3, from memory.
test.each([
  ["<mrow><mi>a</mi><mo>+</mo><mi>b</mi></mrow>", "a+b"],
  ["<semantics><mi>a</mi><annotation encoding='application/x-tex'>\\a</annotation></semantics>", "a"],
  ["<mfenced open='[' close=']' separators=';'><mi>a</mi><mi>b</mi></mfenced>", "[a;b]"],
  ["<mfrac><mi>a</mi></mfrac>", "a"],
  ["<msup><mi>a</mi><none/></msup>", "a^"],
  ["<mi href='https://evil.example' onclick='x()'>a</mi>", "a"],
  ["<maction><mi>a</mi></maction>", "a"],
  ["a<script>x</script>", "a"],
])("<math>%s</math> is %s", async (inside, words) => {
  const { blocks } = await page(`<p>See <math display="block">${inside}</math></p>`);
  const formula = blocks[0]!.child(1);
  expect(formula.type.name).toBe("formula");
  expect(wordsOfMath(formula.attrs["math"] as MathElement)).toBe(words);
  expect(JSON.stringify(formula.attrs)).not.toMatch(/evil|onclick|script/);
});

test("a formula that is too large keeps its letters, and that is told", async () => {
  const { blocks, leftOut } = await page(
    `<p><math>${"<msqrt>".repeat(100)}<mi>a</mi>${"</msqrt>".repeat(100)}</math></p>`,
  );
  expect(blocks.map(String)).toEqual(['paragraph("a")']);
  expect(leftOut).toEqual([expect.objectContaining({ sort: "Formulas" })]);
});

test("the title of a section that is a part begins one, and the chapters in it are chapters", async () => {
  const html = (type: string): string =>
    `<!doctype html><html lang="en"><title>T</title><body><section ${type}><header><h1>One</h1></header><p>a</p><section><h1>Two</h1><p>b</p></section></section><section role="doc-chapter"><h1>Three</h1><p>c</p></section></body></html>`;
  for (const type of ['role="doc-part"', 'epub:type="part"']) {
    const { roles } = await bring(new TextEncoder().encode(html(type)));
    expect(roles).toEqual(["part", "chapter", "chapter"]);
  }
});
