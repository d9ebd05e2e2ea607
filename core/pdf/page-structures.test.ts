import { describe, expect, test } from "@jest/globals";
import { pdfOfObjects, streamOf, type NamedObjects } from "../test/pdf-of-objects.ts";
import { structuresBesidePdfJs } from "../test/same-structure.ts";

// What pdf.js, Mozilla's reader, gives for a page is compared with what is read here.

/** Two pages: a paragraph with a link on each, the second paragraph running on from the first page; a picture. */
const file: NamedObjects = {
  catalog: "<</Type /Catalog /Pages {{pages}} /StructTreeRoot {{root}} /MarkInfo <</Marked true>>>>",
  pages: "<</Type /Pages /Count 2 /Kids [{{first}} {{second}}] /MediaBox [0 0 300 400]>>",
  first: "<</Type /Page /Parent {{pages}} /Contents {{content}} /Annots [{{link}}] /StructParents 0>>",
  second: "<</Type /Page /Parent {{pages}} /Contents {{content}} /Annots [{{other}}] /StructParents 1>>",
  content: streamOf("/P <</MCID 0>> BDC EMC /P <</MCID 1>> BDC EMC /P <</MCID 2>> BDC EMC"),
  link: "<</Type /Annot /Subtype /Link /Rect [0 0 9 9] /StructParent 2 /A {{action}}>>",
  other: "<</Type /Annot /Subtype /Link /Rect [0 0 9 9] /StructParent 3 /A {{action}}>>",
  action: "<</S /URI /URI (https://tides.hesterley.example/)>>",
  root: "<</Type /StructTreeRoot /K [{{document}}] /ParentTree {{owners}} /RoleMap <</Walk /P>>>>",
  owners:
    "<</Nums [0 [{{start}} {{words}} {{end}}] 1 [{{end}} {{figure}} {{last}}] 2 {{words}} 3 {{last}}]>>",
  document: "<</S /Document /P {{root}} /K [{{start}} {{end}} {{figure}}]>>",
  start: "<</S /P /P {{document}} /Pg {{first}} /K [0 {{words}}]>>",
  words: "<</S /Link /P {{start}} /Pg {{first}} /K [1 <</Type /OBJR /Pg {{first}} /Obj {{link}}>>]>>",
  end: "<</S /Walk /P {{document}} /K [<</Type /MCR /Pg {{first}} /MCID 2>> {{run}} {{last}}]>>",
  run: "<</Type /MCR /Pg {{second}} /MCID 0>>",
  last: "<</S /Link /P {{end}} /Pg {{second}} /K [2 <</Type /OBJR /Obj {{other}}>>]>>",
  figure: "<</S /Figure /P {{document}} /Pg {{second}} /Alt (A hut on stilts) /K 1>>",
};

test("a page has the elements that have something on it, in the order of the file", async () => {
  const { bytes, numberOf } = pdfOfObjects(file);
  const { own } = await structuresBesidePdfJs(bytes);
  const content = (page: string, id: number): string => `p${numberOf(page)}R_mc${id}`;
  const inDocument = (inside: unknown[]): unknown => ({
    role: "Root",
    inside: [{ role: "Document", inside }],
  });
  expect(own).toEqual([
    inDocument([
      {
        role: "P",
        inside: [
          content("first", 0),
          { role: "Link", inside: [content("first", 1), `${numberOf("link")}R`] },
        ],
      },
      { role: "P", inside: [content("first", 2)] },
    ]),
    inDocument([
      {
        role: "P",
        inside: [
          content("second", 0),
          { role: "Link", inside: [content("second", 2), `${numberOf("other")}R`] },
        ],
      },
      { role: "Figure", alt: "A hut on stilts", inside: [content("second", 1)] },
    ]),
  ]);
});

const instead = (name: string, old: string, by: string): NamedObjects => {
  const changed = file[name]!.replace(old, by);
  if (changed === file[name]) throw new Error(`Nothing of ${name} is changed.`);
  return { [name]: changed };
};

describe("the same as pdf.js tells of a file", () => {
  test.each<[string, NamedObjects]>([
    ["as it was meant", {}],
    ["without a structure", instead("catalog", "/StructTreeRoot {{root}}", "")],
    ["whose link is not in its paragraph", instead("start", "{{words}}", "")],
    ["whose paragraph is not in its document", instead("document", "{{start}}", "")],
    ["whose document is not in the root", instead("root", "[{{document}}]", "[{{figure}}]")],
    ["whose link says that it is elsewhere", instead("words", "/P {{start}}", "/P {{end}}")],
    ["whose document says nothing of what it is in", instead("document", "/P {{root}}", "")],
    ["with elements that are in each other", instead("document", "/P {{root}}", "/P {{start}}")],
    ["whose paragraph stands there twice", instead("document", "{{end}}", "{{start}} {{end}}")],
    ["whose page has no key", instead("first", "/StructParents 0", "")],
    ["whose link has no key", instead("link", "/StructParent 2", "")],
    ["with a page of a key that nobody has", instead("first", "/StructParents 0", "/StructParents 7")],
    [
      "whose page does not tell of a link's words",
      instead("owners", "{{start}} {{words}}", "{{start}} null"),
    ],
    ["with nothing but an annotation in a link", instead("words", "[1 ", "[")],
    ["with one thing in an element, and no list", instead("start", "[0 {{words}}]", "{{words}}")],
    ["with an element that leads nowhere", instead("document", "{{figure}}", "{{nobody}}")],
    ["with a picture that says other words too", instead("figure", "/Alt", "/ActualText (Hut) /Alt")],
    ["with words for what is shown", instead("figure", "/Alt (A hut on stilts)", "/ActualText (Hut)")],
    ["with words of other letters", instead("figure", "(A hut on stilts)", "<FEFF 0141 00F3 0064017A>")],
    [
      "whose table of what belongs to what has parts",
      {
        owners: "<</Kids [{{low}} {{high}}]>>",
        low: "<</Limits [0 1] /Nums [0 [{{start}} {{words}} {{end}}] 1 {{list}}]>>",
        high: "<</Limits [2 3] /Nums [2 {{words}} 3 {{last}}]>>",
        list: "[{{end}} {{figure}} {{last}}]",
      },
    ],
  ])("%s", async (_, changed) => {
    const { own, pdfJs } = await structuresBesidePdfJs(pdfOfObjects({ ...file, ...changed }).bytes);
    expect(own).toEqual(pdfJs);
    expect(own).toHaveLength(2);
  });
});
