import { describe, expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import type { Node } from "prosemirror-model";
import { pictureAttrs } from "../manuscript/attributes.ts";
import type { Hotspot } from "../manuscript/hotspot.ts";
import { writeEpub } from "../publish/formats/epub/write-epub.ts";
import { writeWebPage } from "../publish/formats/web/web-page.ts";
import { bookOfEveryFeature } from "../test/book-of-every-feature.ts";
import { bring } from "../test/brought.ts";
import { redDot } from "../test/red-dot.ts";
import { importManuscript, type ImportedManuscript } from "./import-manuscript.ts";

function hotspotsOf(chapters: readonly Node[]): Hotspot[] {
  const found: Hotspot[] = [];
  for (const doc of chapters)
    doc.descendants((node) => {
      if (node.type.name === "picture") found.push(...pictureAttrs(node).hotspots);
    });
  return found;
}
/** Brings a file in all of whose pictures came along. */
const withPictures = (bytes: Uint8Array): Promise<ImportedManuscript> =>
  importManuscript(
    { name: "walks", bytes },
    { fallbackTitle: "T", baseAddress: null, pictureFor: () => "map" },
  );
const drawn = ({ shape, points, alt, description }: Hotspot): unknown => ({
  shape,
  points,
  alt,
  description,
});

describe("areas of pictures are areas in the book, where they were", () => {
  test("those of image maps, by the pixels in which the picture is shown", async () => {
    const page = `<!doctype html><h1 id="t">T</h1><p><img src="m.png" width="200" height="100" usemap="#m" alt="Map"></p>
      <map name="m"><area href="https://a.example/" alt="The head" coords="20,10,100,50"><area shape="circle" href="#t" alt="Top" coords="100,50,10">
      <area shape="poly" href="https://b.example/" title="Sands" coords="0,0,200,0,0,100"><area nohref alt="Sea"></map>`;
    const { chapters, arrival } = await withPictures(strToU8(page));
    expect(hotspotsOf(chapters).map(drawn)).toEqual([
      {
        shape: "rectangle",
        points: [
          [0.1, 0.1],
          [0.5, 0.5],
        ],
        alt: "The head",
        description: null,
      },
      {
        shape: "ellipse",
        points: [
          [0.45, 0.4],
          [0.55, 0.6],
        ],
        alt: "Top",
        description: null,
      },
      {
        shape: "polygon",
        points: [
          [0, 0],
          [1, 0],
          [0, 1],
        ],
        alt: "Sands",
        description: null,
      },
    ]);
    expect(hotspotsOf(chapters)[1]!.destination).toEqual({
      kind: "place",
      target: chapters[0]!.firstChild!.attrs["id"],
    });
    expect(arrival!.counts).toMatchObject({ intact: 3, lost: 0, extra: 0 });
  });

  test("where the picture did not come along, each is a link with its words", async () => {
    const page = `<!doctype html><h1>T</h1><p><img src="m.png" usemap="#m" alt="Map"></p><map name="m"><area href="https://a.example/" alt="The head"></map>`;
    const { chapters, arrival } = await bring(strToU8(page));
    expect([hotspotsOf(chapters), arrival!.counts.intact]).toEqual([[], 1]);
  });

  test("those of a text document, in any unit of length", async () => {
    const area = (name: string, more: string): string =>
      `<draw:area-${name} xlink:href="https://${name}.example/" ${more}><svg:title>${name}</svg:title></draw:area-${name}>`;
    const map =
      area("rectangle", 'svg:x="1cm" svg:y="10mm" svg:width="1cm" svg:height="1cm"') +
      area("circle", 'svg:cx="2cm" svg:cy="2cm" svg:r="1cm"') +
      area(
        "polygon",
        'svg:x="0cm" svg:y="0cm" svg:width="4cm" svg:height="4cm" svg:viewBox="0 0 100 100" draw:points="0,0 100,0 0,100"',
      );
    const names = 'xmlns:office="o" xmlns:text="t" xmlns:draw="d" xmlns:svg="s" xmlns:xlink="x"';
    const content = `<office:document-content ${names}><office:body><office:text><text:p><draw:frame svg:width="4cm" svg:height="4cm"><draw:image xlink:href="Pictures/m.png"/><draw:image-map>${map}</draw:image-map></draw:frame></text:p></office:text></office:body></office:document-content>`;
    const bytes = zipSync({
      mimetype: strToU8("application/vnd.oasis.opendocument.text"),
      "content.xml": strToU8(content),
      "Pictures/m.png": redDot,
    });
    expect(hotspotsOf((await bring(bytes)).chapters).map(drawn)).toEqual([
      {
        shape: "rectangle",
        points: [
          [0.25, 0.25],
          [0.5, 0.5],
        ],
        alt: "rectangle",
        description: null,
      },
      {
        shape: "ellipse",
        points: [
          [0.25, 0.25],
          [0.75, 0.75],
        ],
        alt: "circle",
        description: null,
      },
      {
        shape: "polygon",
        points: [
          [0, 0],
          [1, 0],
          [0, 1],
        ],
        alt: "polygon",
        description: null,
      },
    ]);
  });

  test("those that Vennet writes into web pages and e-books come in as they were", async () => {
    const book = bookOfEveryFeature();
    const asked = hotspotsOf(book.chapters.map(({ doc }) => doc)).map(drawn);
    for (const bytes of [writeEpub(book), writeWebPage(book)]) {
      const { chapters } = await withPictures(bytes);
      expect(hotspotsOf(chapters).map(drawn)).toEqual(asked);
    }
  });
});
