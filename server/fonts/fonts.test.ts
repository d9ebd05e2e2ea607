import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import { EpubCheck } from "@likecoin/epubcheck-ts";
import { strFromU8, unzipSync } from "fflate";
import { causewayFont } from "../test/font-files.ts";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";
import { kept, tool } from "../test/tools.ts";

let server: TestServer;
let author: Client;
let bookId: string;
beforeAll(async () => {
  server = await startTestServer();
  author = await server.client().signUp();
});
beforeEach(async () => {
  const { body } = await author.bringIn(
    "# Low water\n\nThe [tables](https://tides.example/) *say* when, **always**; see [the chart](#chart).\n\n## Chart\n\nIts depth is `2 m`.",
  );
  bookId = body.book.id;
});
afterAll(() => server.close());

async function bring(fonts: Record<string, Uint8Array>): Promise<any> {
  const form = new FormData();
  for (const [name, bytes] of Object.entries(fonts)) form.append("font", new Blob([bytes as BlobPart]), name);
  return author.call("POST", `/books/${bookId}/fonts`, form);
}

const choose = (fonts: Record<string, string | null>): Promise<any> =>
  author.call("PATCH", `/books/${bookId}`, { fonts: { text: null, headings: null, code: null, ...fonts } });

async function changes(format: string): Promise<string[]> {
  const { body } = await author.call<any>("POST", `/books/${bookId}/exports/preflight`, { format });
  return body.changes.map(({ message }: { message: string }) => message);
}

/** The fonts of a PDF as poppler names them, without the letters of their subsets. */
async function fontsOf(pdf: Buffer): Promise<string[]> {
  const { output } = await tool("pdffonts", kept("own-fonts.pdf", pdf));
  const names = output
    .split("\n")
    .slice(2)
    .flatMap((line) => /^\w{6}\+(\S+)/.exec(line)?.[1] ?? []);
  return [...new Set(names)].sort();
}

test("a book is set in fonts that its author brought, and every link of it is intact", async () => {
  const { body } = await bring({
    "regular.ttf": causewayFont(),
    "bold.ttf": causewayFont("bold"),
    "italic.ttf": causewayFont("italic"),
    "heads.ttf": causewayFont("bold", { family: "Ferryman" }),
    "code.ttf": causewayFont("regular", { family: "Foghorns" }),
  });
  expect(body.refused).toEqual([]);
  expect(body.stored).toEqual(
    [
      ["Causeway", 400, false],
      ["Causeway", 700, false],
      ["Causeway", 400, true],
      ["Ferryman", 700, false],
      ["Foghorns", 400, false],
    ].map(([family, weight, italic]) =>
      expect.objectContaining({
        family,
        weight,
        italic,
        stretch: 100,
        permission: "installable",
        canBeSubset: true,
      }),
    ),
  );
  await choose({ text: "Causeway", headings: "Ferryman", code: "Foghorns" });

  const pdf = await author.exported(bookId, "pdf");
  expect(pdf.proof).toMatchObject({ complete: true, warnings: [] });
  expect(await fontsOf(pdf.bytes)).toEqual([
    "Causeway-Bold",
    "Causeway-Italic",
    "Causeway-Regular",
    "Ferryman-Bold",
    "Foghorns-Regular",
  ]);

  const epub = await author.exported(bookId, "epub", { pageList: false });
  expect(epub.proof).toMatchObject({ complete: true, warnings: [] });
  const files = unzipSync(epub.bytes);
  expect(Object.keys(files).filter((name) => name.endsWith(".ttf"))).toHaveLength(5);
  expect(Buffer.from(files["EPUB/font-1.ttf"]!).equals(causewayFont())).toBe(true);
  const style = strFromU8(files["EPUB/style.css"]!);
  expect(style).toContain('html { font-family: "Causeway", serif; }');
  expect(style).toContain('h1, h2, h3, h4, h5 { font-family: "Ferryman", serif; }');
  expect(style).toContain('pre, code { font-family: "Foghorns", monospace; }');
  expect((await EpubCheck.validate(epub.bytes)).messages).toEqual([]);

  const web = await author.exported(bookId, "web", { pages: "chapters" });
  expect(web.proof).toMatchObject({ complete: true, warnings: [] });
  const folder = unzipSync(web.bytes);
  expect(Buffer.from(folder["fonts/1.ttf"]!).equals(causewayFont())).toBe(true);
  expect(strFromU8(folder["style.css"]!)).toContain('src: url("fonts/1.ttf")');
});

test("fonts go only where their makers let them, and what goes without is foreseen", async () => {
  // OpenType 1.9, OS/2 fsType: 4 is Preview & Print embedding, 0x100 no subsetting, 2 restricted, 0x200 bitmaps only.
  const { body } = await bring({
    "preview.ttf": causewayFont("regular", { family: "Previews", fsType: 4 }),
    "whole.ttf": causewayFont("regular", { family: "Unsubset", fsType: 0x108 }),
    "restricted.ttf": causewayFont("regular", { family: "Keepsake", fsType: 2 }),
    "bitmaps.ttf": causewayFont("regular", { family: "Pixelary", fsType: 0x200 }),
  });
  expect(
    body.stored.map(({ family, permission, canBeSubset }: any) => [family, permission, canBeSubset]),
  ).toEqual([
    ["Previews", "preview", true],
    ["Unsubset", "editable", false],
  ]);
  expect(body.refused.map(({ message }: any) => message)).toEqual([
    expect.stringMatching(/^“restricted.ttf” may not be put into files/),
    expect.stringMatching(/^“bitmaps.ttf” may be put into files only as pictures/),
  ]);

  await choose({ text: "Previews", headings: "Unsubset" });
  const notCut = expect.stringMatching(
    /^Headings will be in the usual letters: “Unsubset” may not be cut down/,
  );
  const onlyViewed = expect.stringMatching(
    /^The text will be in the usual letters: “Previews” may only be viewed/,
  );
  expect(await changes("pdf")).toEqual([notCut]);
  expect(await changes("epub")).toEqual([expect.stringMatching(/No PDF has been exported yet/)]);
  expect(await changes("web")).toEqual([onlyViewed]);

  const pdf = await author.exported(bookId, "pdf");
  expect(pdf.proof.warnings.map(({ message }: any) => message)).toEqual([notCut]);
  // What the author chose for the text sets headings then.
  expect(await fontsOf(pdf.bytes)).toEqual(["JetBrainsMono-Regular", "Previews-Regular"]);
});

test("what is no font, or none that can be set, is refused with what to do, and the others are taken", async () => {
  const good = causewayFont();
  const { body } = await bring({
    "notes.ttf": Buffer.from("Low water at 6:45"),
    "collection.ttc": Buffer.concat([Buffer.from("ttcf"), good.subarray(4)]),
    "web.woff2": Buffer.concat([Buffer.from("wOF2"), good.subarray(4)]),
    "half.ttf": good.subarray(0, 400),
    "nameless.ttf": Buffer.from(good.toString("latin1").replace("glyf", "gone"), "latin1"),
    "good.ttf": good,
  });
  expect(body.stored.map(({ name }: any) => name)).toEqual(["good.ttf"]);
  expect(body.refused.map(({ message }: any) => message)).toEqual([
    "“notes.ttf” is no font. Bring a TTF or OTF file.",
    expect.stringMatching(/collection of fonts \(TTC\)\. Bring each/),
    expect.stringMatching(/packed for web pages \(WOFF\)/),
    expect.stringMatching(/“half.ttf” is damaged/),
    expect.stringMatching(/“nameless.ttf” /),
  ]);
});

test("a face brought again takes the place of the old one; one that is removed is told before an export", async () => {
  await bring({ "first.ttf": causewayFont() });
  await bring({ "second.ttf": causewayFont() });
  const { body } = await author.call<any>("GET", `/books/${bookId}/fonts`);
  expect(body).toEqual([expect.objectContaining({ name: "second.ttf", family: "Causeway" })]);
  await choose({ text: "Causeway" });
  expect(await changes("web")).toEqual([]);

  expect((await author.call("DELETE", `/books/${bookId}/fonts/${body[0].id}`)).status).toBe(204);
  expect(await changes("web")).toEqual([
    "The text will be in the usual letters: “Causeway” is not among the book’s fonts any more. Bring it in again, or choose another.",
  ]);
  await bring({ "third.ttf": causewayFont() });
  expect(await changes("web")).toEqual([]);
});

test("fonts are their author's alone, and a family without a name is none", async () => {
  const stranger = await server.client().signUp();
  expect((await stranger.call("GET", `/books/${bookId}/fonts`)).status).toBe(404);
  expect((await choose({ text: "" })).status).toBe(400);
});
