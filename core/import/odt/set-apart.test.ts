import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { wordsOfMath, type MathElement } from "../../manuscript/math.ts";
import { bring } from "../../test/brought.ts";

const namespaces = ["office", "text", "table", "draw", "xlink", "style", "fo", "svg"]
  .map((name) => `xmlns:${name}="urn:${name}"`)
  .join(" ");
const style = (name: string, parent: string, more: string): string =>
  `<style:style style:name="${name}" style:family="paragraph" style:parent-style-name="${parent}"><style:paragraph-properties ${more}/></style:style>`;

// Names of elements and attributes: OpenDocument 1.3, part 3, from memory.
test("aligned paragraphs, pages that begin, what is set off by style, and formulas", async () => {
  const p = (name: string, words: string): string => `<text:p text:style-name="${name}">${words}</text:p>`;
  const object = (path: string): string =>
    `<text:p>See <draw:frame><draw:object xlink:href="./${path}"/><draw:image xlink:href="gone.png"/></draw:frame></text:p>`;
  const content = `<office:document-content ${namespaces}><office:automatic-styles>${[
    style("P1", "Standard", 'fo:text-align="end"'),
    style("P2", "Standard", 'fo:break-before="page" fo:text-align="start"'),
    style("P3", "Verse", 'fo:text-align="center"'),
  ].join("")}</office:automatic-styles><office:body><office:text>${[
    p("P1", "end"),
    p("P2", "overleaf"),
    p("Verse", "one"),
    p("P3", "two"),
    p("Epigraph", "said"),
    object("Object 1"),
    object("Object 2"),
  ].join("")}</office:text></office:body></office:document-content>`;
  const { chapters } = await bring(
    zipSync({
      mimetype: [strToU8("application/vnd.oasis.opendocument.text"), { level: 0 }],
      "content.xml": strToU8(content),
      "Object 1/content.xml": strToU8(
        '<math xmlns="http://www.w3.org/1998/Math/MathML"><semantics><mrow><msup><mi>x</mi><mn>2</mn></msup></mrow><annotation encoding="StarMath 5.0">x^2</annotation></semantics></math>',
      ),
      "Object 2/content.xml": strToU8("<math><mi>"),
    }),
  );
  const [, ...blocks] = chapters[0]!.children;
  const formula = blocks[5]!.child(1);
  expect(
    blocks.map((node) => [String(node), (node.attrs["align"] ?? node.attrs["kind"]) as unknown]),
  ).toEqual([
    ['paragraph("end")', "end"],
    ["page_break", undefined],
    ['paragraph("overleaf")', undefined],
    ['blockquote(paragraph("one"), paragraph("two"))', "verse"],
    ['blockquote(paragraph("said"))', "epigraph"],
    ['paragraph("See ", formula)', undefined],
    ['paragraph("See ", picture)', undefined],
  ]);
  expect(wordsOfMath(formula.attrs["math"] as MathElement)).toBe("x^2");
});
