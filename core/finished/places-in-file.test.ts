import { expect, test } from "@jest/globals";
import { strToU8 } from "fflate";
import { hasPlace, type FilePlaces } from "../manuscript/file-places.ts";
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
  ["nameddest=huts", true],
  ["nameddest=sheds", false],
])("of three pages and one name %s is there: %s", (at, isThere) => {
  const places: FilePlaces = { pages: 3, places: [{ at: "nameddest=huts", name: "huts" }] };
  expect(hasPlace(places, at)).toBe(isThere);
});
