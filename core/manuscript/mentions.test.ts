import { describe, expect, test } from "@jest/globals";
import { bringIn } from "../test/sample-book.ts";
import { schema } from "./schema.ts";
import { codeExpression, codesInNames, matchCodes, patternFromExamples, unusedFiles } from "./codes.ts";
import { chooseMentions, findMentions, findPattern } from "./mentions.ts";
import { compareVersions } from "./versions.ts";

const doc = bringIn(`# The Tide Office

The **tide** office knows. See the [tide office](https://tides.example/) or the Tide
Office at Merrow’s tide offices.

## Tide office hours

\`\`\`
tide office
\`\`\`

Half a [near the tide](https://a.example/) office.
`).chapters[0]!;

describe("every mention of a phrase", () => {
  const all = { wholeWords: true, matchCase: false };

  test("is found over marks and any blanks, as whole words, with its context, not in listings", () => {
    const found = findMentions(doc, "tide office", all);
    expect(found.map(({ text, inHeading, link }) => [text, inHeading, link?.text ?? null])).toEqual([
      ["Tide Office", true, null],
      ["tide office", false, null],
      ["tide office", false, "tide office"],
      ["Tide Office", false, null],
      ["Tide office", true, null],
      ["tide office", false, "near the tide"],
    ]);
    expect(found[1]).toMatchObject({ before: "The ", after: " knows. See the tide office or the Tide " });
    for (const { from, to, text } of found) expect(doc.textBetween(from, to)).toBe(text);
  });

  test("whatever signs it has", () => {
    for (const sign of "!\"#$%&'()*+,-./:;<=>?@[\\]^_`{|}~–€") {
      const phrase = `low${sign}water`;
      const text = schema.node("doc", null, [
        schema.node("title", { id: "t" }, [schema.text("Tides")]),
        schema.node("paragraph", null, [schema.text(`At ${phrase} and low water, low-low.`)]),
      ]);
      expect(findMentions(text, phrase, all).map((found) => found.text)).toEqual([phrase]);
      expect(findMentions(text, phrase, { wholeWords: false, matchCase: true })).toHaveLength(1);
      const pattern = patternFromExamples([`R${sign}1`, `R${sign}20`])!;
      expect(`See R${sign}3 there.`.match(codeExpression(pattern))).toEqual([`R${sign}3`]);
    }
  });

  test("with letter case, and with parts of words", () => {
    expect(findMentions(doc, "tide office", { wholeWords: true, matchCase: true })).toHaveLength(3);
    expect(findMentions(doc, "tide office", { wholeWords: false, matchCase: true })).toHaveLength(4);
    expect(findMentions(doc, "  ", all)).toEqual([]);
    expect(findMentions(bringIn("# T\n\na.b a+b").chapters[0]!, "a.b", all)).toHaveLength(1);
  });

  test("rules leave out headings, linked ones, all but the first; one that only touches a link is never taken", () => {
    const found = findMentions(doc, "tide office", all);
    const rules = { skipHeadings: false, linked: "skip" as const, firstOnly: false };
    expect(chooseMentions(found, rules)).toHaveLength(4);
    expect(chooseMentions(found, { ...rules, skipHeadings: true })).toHaveLength(2);
    expect(chooseMentions(found, { ...rules, linked: "retarget" })).toHaveLength(5);
    expect(chooseMentions(found, { ...rules, skipHeadings: true, firstOnly: true })).toMatchObject([
      { text: "tide office", before: "The " },
    ]);
  });
});

describe("codes and files", () => {
  test.each([
    [["R3", "R12"], "R\\d+"],
    [["R3"], "R\\d+"],
    [["A-1.2", "A-10.33"], "A-\\d+\\.\\d+"],
    [["Fa 3", "Gb 12"], "\\p{L}+ \\d+"],
    [["R3", "R-3"], null],
    [[""], null],
  ])("the examples %j give the pattern %s", (examples, pattern) => {
    expect(patternFromExamples(examples)).toBe(pattern);
  });

  test("codes stand as words of their own", () => {
    const text = bringIn("# T\n\nR3, (R12) XR4 R5a R3.").chapters[0]!;
    expect(findPattern(text, codeExpression("R\\d+")).map((hit) => hit.text)).toEqual(["R3", "R12", "R3"]);
    expect(() => codeExpression("R(")).toThrow(SyntaxError);
  });

  test("each code gets the file whose name fits best, and what is left over is told", () => {
    const files = ["R_03.pdf", "Refuge R12 plan.pdf", "12.txt", "notes.txt", "r7.pdf", "R07 old.pdf"].map(
      (name, i) => ({ id: `f${i}`, name }),
    );
    const matches = matchCodes(["R3", "R12", "R7", "R9", "R3"], files);
    expect(
      matches.map(({ code, file, quality, others }) => [code, file?.name, quality, others.length]),
    ).toEqual([
      ["R3", "R_03.pdf", "exact", 0],
      ["R12", "Refuge R12 plan.pdf", "word", 0],
      ["R7", "r7.pdf", "exact", 0],
      ["R9", undefined, "none", 0],
    ]);
    expect(unusedFiles(matches, files).map(({ name }) => name)).toEqual([
      "12.txt",
      "notes.txt",
      "R07 old.pdf",
    ]);
    expect(matchCodes(["R12"], [{ id: "a", name: "12.txt" }])).toMatchObject([{ quality: "number" }]);
    expect(
      matchCodes(
        ["R1"],
        [
          { id: "a", name: "R1 a.txt" },
          { id: "b", name: "R1 b.txt" },
        ],
      )[0]!.others,
    ).toHaveLength(1);
  });

  test("codes are read from the names of files, those of one build together", () => {
    const names = [
      "R1 plan.pdf",
      "C-07.txt",
      "r02.pdf",
      "notes.txt",
      "2026 tides.pdf",
      "R12_box.pdf",
      "R4a.pdf",
    ];
    expect(codesInNames(names)).toEqual([["R1", "R02", "R12"], ["C07"]]);
  });
});

test("two versions are compared by their links' ids and their words", () => {
  const text = (body: string) => bringIn(`# T\n\n${body}\n\nSame.`).chapters[0]!;
  const before = text("The [ferry](https://a.example/) and the [pier](https://b.example/) are old.");
  const after = bringIn("# T\n\nx").chapters[0]!.type.schema.nodeFromJSON(
    JSON.parse(
      JSON.stringify(before.toJSON())
        .replace("https://a.example/", "https://c.example/")
        .replace("are old", "are new"),
    ),
  );
  const { links, paragraphs } = compareVersions(before, after);
  expect(links).toMatchObject([
    {
      kind: "changed",
      before: { text: "ferry", destination: { address: "https://a.example/" } },
      after: { destination: { address: "https://c.example/" } },
    },
  ]);
  const changed = paragraphs.find((parts) => parts.length > 1)!;
  expect(changed.filter(({ kind }) => kind === "removed").map((part) => part.text)).toEqual(["old"]);
  expect(changed.filter(({ kind }) => kind === "added").map((part) => part.text)).toEqual(["new"]);
  // Other ids are other links, whatever they say.
  expect(
    compareVersions(before, text("The [ferry](https://a.example/) is old.")).links.map(({ kind }) => kind),
  ).toEqual(["added", "removed", "removed"]);
});
