import { expect, test } from "@jest/globals";
import type { MathElement } from "../../manuscript/math.ts";
import { wordsOfMath } from "../../manuscript/math.ts";
import { bring } from "../../test/brought.ts";
import { document, p, styled, t } from "../../test/small-docx.ts";

const blocks = async (body: string, parts = {}): Promise<string[]> => {
  const { chapters } = await bring(document(body, parts));
  return chapters.flatMap((doc) => doc.children.slice(1).map(String));
};

// Names of elements: ECMA-376-1, 22.1 and 17.3, from memory.
test("formulas of text documents arrive as MathML", async () => {
  const r = (words: string, style = ""): string =>
    `<m:r>${style && `<m:rPr>${style}</m:rPr>`}<m:t>${words}</m:t></m:r>`;
  const e = (...content: string[]): string => `<m:e>${content.join("")}</m:e>`;
  const formulas: [string, string][] = [
    [`<m:sSup>${e(r("x"))}<m:sup>${r("2")}</m:sup></m:sSup>${r("+1.5")}`, "x^2+1.5"],
    [`<m:f><m:num>${r("a+b")}</m:num><m:den>${r("c")}</m:den></m:f>`, "(a+b)/c"],
    [
      `<m:f><m:fPr><m:type m:val="noBar"/></m:fPr><m:num>${r("n")}</m:num><m:den>${r("k")}</m:den></m:f>`,
      "n/k",
    ],
    [`<m:rad><m:radPr><m:degHide m:val="1"/></m:radPr><m:deg/>${e(r("x"))}</m:rad>`, "√x"],
    [`<m:rad><m:deg>${r("3")}</m:deg>${e(r("x"))}</m:rad>`, "3√x"],
    [
      `<m:nary><m:naryPr><m:chr m:val="∑"/><m:limLoc m:val="undOvr"/></m:naryPr><m:sub>${r("i=1")}</m:sub><m:sup>${r("n")}</m:sup>${e(r("i"))}</m:nary>`,
      "∑_(i=1)^ni",
    ],
    [
      `<m:nary><m:naryPr><m:subHide m:val="1"/><m:supHide m:val="1"/></m:naryPr><m:sub/><m:sup/>${e(r("x"))}</m:nary>`,
      "∫x",
    ],
    [`<m:d><m:dPr><m:begChr m:val="["/><m:endChr m:val="]"/></m:dPr>${e(r("a"))}${e(r("b"))}</m:d>`, "[a|b]"],
    [`<m:func><m:fName>${r("sin", '<m:sty m:val="p"/>')}</m:fName>${e(r("x"))}</m:func>`, "sinx"],
    [`<m:sSubSup>${e(r("a"))}<m:sub>${r("i")}</m:sub><m:sup>${r("2")}</m:sup></m:sSubSup>`, "a_i^2"],
    [`<m:m><m:mr>${e(r("1"))}${e(r("2"))}</m:mr><m:mr>${e(r("3"))}${e(r("4"))}</m:mr></m:m>`, "1 2; 3 4"],
    [`<m:limLow>${e(r("lim", '<m:sty m:val="p"/>'))}<m:lim>${r("x")}</m:lim></m:limLow>`, "limx"],
    [`<m:acc><m:accPr><m:chr m:val="̂"/></m:accPr>${e(r("x"))}</m:acc>`, "x̂"],
    [r("if x", "<m:nor/>"), "if x"],
  ];
  const body = formulas.map(([formula]) => p(t("See "), `<m:oMath>${formula}</m:oMath>`)).join("");
  const { chapters, leftOut } = await bring(document(body));
  const found: string[] = [];
  chapters[0]!.descendants((node) => {
    if (node.type.name === "formula") found.push(wordsOfMath(node.attrs["math"] as MathElement));
  });
  expect(found).toEqual(formulas.map(([, words]) => words));
  expect(leftOut).toEqual([]);
});

test("a formula in a line of its own is one, and one that is too large keeps its letters and is told", async () => {
  const deep = `${"<m:box><m:e><m:rad><m:deg/><m:e>".repeat(80)}<m:r><m:t>x</m:t></m:r>${"</m:e></m:rad></m:e></m:box>".repeat(80)}`;
  const { chapters, leftOut } = await bring(
    document(
      p("<m:oMathPara><m:oMath><m:r><m:t>y</m:t></m:r></m:oMath></m:oMathPara>") +
        p(`<m:oMath>${deep}</m:oMath>`),
    ),
  );
  expect(chapters[0]!.child(1).firstChild!.attrs).toMatchObject({ display: true });
  expect(chapters[0]!.child(2).textContent).toBe("x");
  expect(leftOut).toEqual([expect.objectContaining({ sort: "Formulas" })]);
});

test("pages break where the text says so, but not before a chapter", async () => {
  const page = '<w:r><w:br w:type="page"/></w:r>';
  const before = "<w:pPr><w:pageBreakBefore/></w:pPr>";
  const title = '<w:pPr><w:pageBreakBefore/><w:outlineLvl w:val="0"/></w:pPr>';
  expect(
    await blocks(
      p(t("one"), page, t("two")) + p(page) + p(before, t("three")) + p(title, t("Chapter")) + p(t("four")),
    ),
  ).toEqual([
    'paragraph("one")',
    "page_break",
    'paragraph("two")',
    "page_break",
    "page_break",
    'paragraph("three")',
    'paragraph("four")',
  ]);
});

test("paragraphs are aligned by themselves or by their style, and set off by the names of styles", async () => {
  const styles =
    '<w:styles><w:style w:styleId="M"><w:name w:val="Middle"/><w:pPr><w:jc w:val="center"/></w:pPr></w:style><w:style w:styleId="V"><w:name w:val="Verse"/></w:style><w:style w:styleId="E"><w:name w:val="Epigraph"/></w:style><w:style w:styleId="Q"><w:name w:val="Quote"/></w:style></w:styles>';
  const { chapters } = await bring(
    document(
      p('<w:pPr><w:jc w:val="right"/></w:pPr>', t("end")) +
        styled("M", t("middle")) +
        p('<w:pPr><w:jc w:val="both"/></w:pPr>', t("both")) +
        styled("E", t("saying")) +
        styled("V", t("one")) +
        styled("V", t("two")) +
        styled("Q", t("said")),
      { styles },
    ),
  );
  const found = chapters[0]!.children
    .slice(1)
    .map((node) => [String(node), (node.attrs["align"] ?? node.attrs["kind"]) as unknown]);
  expect(found).toEqual([
    ['paragraph("end")', "end"],
    ['paragraph("middle")', "center"],
    ['paragraph("both")', undefined],
    ['blockquote(paragraph("saying"))', "epigraph"],
    ['blockquote(paragraph("one"), paragraph("two"))', "verse"],
    ['blockquote(paragraph("said"))', "quotation"],
  ]);
});

test("a place within a formula stands before it, and a link in it is told; the formula keeps its letters", async () => {
  const r = (words: string): string => `<m:r><m:t>${words}</m:t></m:r>`;
  const formula = `<m:sSup><m:e>${r("x")}</m:e><m:sup><w:bookmarkStart w:id="1" w:name="power"/>${r("2")}<w:bookmarkEnd w:id="1"/><w:hyperlink w:anchor="power">${r("n")}</w:hyperlink></m:sup></m:sSup>`;
  const body = p(
    t("See "),
    `<m:oMath>${formula}</m:oMath>`,
    t(" and "),
    `<w:hyperlink w:anchor="power">${t("its power")}</w:hyperlink>`,
  );
  const { chapters, leftOut, arrival } = await bring(document(body));
  const [, paragraph] = chapters[0]!.children;
  expect(paragraph!.children.map(({ type }) => type.name)).toEqual([
    "text",
    "anchor",
    "formula",
    "text",
    "text",
  ]);
  expect(wordsOfMath(paragraph!.child(2).attrs["math"] as MathElement)).toBe("x^2n");
  expect(leftOut.map(({ what, why }) => `${what}: ${why}`)).toEqual([
    "The link “n” to #power: It stands within a formula, which holds no links. Its words are kept.",
  ]);
  expect(arrival!.counts).toMatchObject({ intact: 1, "left-out": 1, lost: 0 });
});
