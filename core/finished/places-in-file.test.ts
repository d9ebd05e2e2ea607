import { expect, test } from "@jest/globals";
import { strToU8 } from "fflate";
import { hasPlace, type FilePlaces } from "../manuscript/file-places.ts";
import { smallEpub } from "../test/small-epub.ts";
import { smallPdf } from "../test/small-pdf.ts";
import { placesInFile } from "./places-in-file.ts";

test("a PDF has its pages, the entries of its outline and the destinations that it names (ISO 32000-1, 12.3; RFC 8118)", async () => {
  const { pages, places } = (await placesInFile(await smallPdf(), "application/pdf"))!;
  expect(pages).toBe(3);
  expect(places).toEqual(
    expect.arrayContaining([
      { at: expect.stringMatching(/^page=\d$/), name: "Refuges – on stilts" },
      { at: "nameddest=huts", name: "huts" },
    ]),
  );
});

test("a page of HTML has its ids, and anchors by their old names", async () => {
  const page = strToU8(
    '<h1 id="t">The <b id="b">huts</b></h1><a name="old spot"></a><p id="é">At last</p><p>None</p>',
  );
  expect(await placesInFile(page, "text/html")).toEqual({
    pages: null,
    places: [
      { at: "t", name: "The huts" },
      { at: "b", name: "huts" },
      { at: "old%20spot", name: "old spot" },
      { at: "%C3%A9", name: "At last" },
    ],
  });
});

// EPUB Canonical Fragment Identifiers 1.1, 2.2: elements are counted by even numbers, ids stand in brackets, as in its examples.
test("an e-book has the headings and ids of its pages, each by the way to it", async () => {
  const book = smallEpub({
    "a.xhtml": '<h1>Tides</h1><div><p id="low[1]">At low water</p></div>',
    "b.xhtml": "<p>No <i>heading</i></p><h2>Huts</h2>",
    "c.xhtml": "<p>Not <b>well-formed</p>",
  });
  const { pages, places } = (await placesInFile(book, "application/epub+zip"))!;
  expect(pages).toBeNull();
  expect(places.map(({ at, name }) => [decodeURIComponent(at), name])).toEqual([
    ["epubcfi(/6/4!/4/2)", "Tides"],
    ["epubcfi(/6/6!/4/4)", "Huts"],
    ["epubcfi(/6/8!/4)", "OPS/text/c.xhtml"],
    ["epubcfi(/6/4!/4/4/2[low^[1^]])", "At low water"],
  ]);
  // RFC 3986, 3.5: what stands behind the # of an address.
  for (const { at } of places) expect(at).toMatch(/^(?:[\w\-.~!$&'()*+,;=:@/?]|%[\dA-F]{2})+$/);
  await expect(placesInFile(strToU8("PK"), "application/epub+zip")).rejects.toMatchObject({ code: "format" });
});

test("other files have none, and a PDF that is none is told", async () => {
  expect(await placesInFile(strToU8("a,b"), "text/csv")).toBeNull();
  await expect(placesInFile(strToU8("%PDF-1.4 and no more"), "application/pdf")).rejects.toMatchObject({
    code: "format",
  });
});

test.each([
  ["page=1", true],
  ["page=3", true],
  ["page=4", false],
  ["page=0", false],
  ["page=3&zoom=100,0,250", true],
  ["page=4&zoom=100,0,250", false],
  ["nameddest=huts", true],
  ["nameddest=sheds", false],
])("of three pages and one name %s is there: %s", (at, isThere) => {
  const places: FilePlaces = { pages: 3, places: [{ at: "nameddest=huts", name: "huts" }] };
  expect(hasPlace(places, at)).toBe(isThere);
});
