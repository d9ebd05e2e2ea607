import { expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { bring, linksIn } from "../../test/brought.ts";
import { document, p, t } from "../../test/small-docx.ts";

type Files = Record<string, Uint8Array>;

const link = (id: string, words: string): string => `<w:hyperlink r:id="${id}">${t(words)}</w:hyperlink>`;
const plain = document(
  p(link("out", "Tables"), '<w:r><w:footnoteReference w:id="2"/></w:r>'),
  { footnotes: `<w:footnotes><w:footnote w:id="2">${p(link("foot", "Clock"))}</w:footnote></w:footnotes>` },
  { out: "https://tides.example/", foot: "https://clock.example/" },
);
const main = "application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml";

// Where parts lie and how they are called is for the relationships to say (ECMA-376, part 2, 9.3).
test.each<[string, (files: Files) => Files]>([
  [
    "its parts lie in another folder, the text under another name",
    (files) => ({
      ...Object.fromEntries(
        Object.entries(files).map(([name, bytes]) => [
          name.replace(/^word\//, "text/").replace("document.xml", "main.xml"),
          name === "_rels/.rels"
            ? strToU8(strFromU8(bytes).replace("word/document.xml", "/text/main.xml"))
            : bytes,
        ]),
      ),
      "[Content_Types].xml": strToU8(
        `<Types><Override PartName="/text/main.xml" ContentType="${main}"/></Types>`,
      ),
    }),
  ],
  [
    "its folders are parted as on Windows",
    (files) =>
      Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name.replaceAll("/", "\\"), bytes])),
  ],
])("a text document comes in where %s", async (_, change) => {
  const bytes = zipSync(change(unzipSync(plain)));
  expect(await linksIn(bytes)).toEqual([
    ["Tables", "https://tides.example/"],
    ["Clock", "https://clock.example/"],
  ]);
  expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 2, lost: 0, extra: 0 });
});
