import { describe, expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { proveSavedEpub } from "../../finished/epub/prove-saved.ts";
import { readFinishedEpub } from "../../finished/epub/read-finished.ts";
import { saveFinishedEpub } from "../../finished/epub/save-finished.ts";
import { waysIntoEpub } from "../../finished/epub/ways-into-epub.ts";
import { linkUses } from "../../manuscript/links.ts";
import { placesOf } from "../../manuscript/outline.ts";
import { writeEpub } from "../../publish/formats/epub/write-epub.ts";
import { bookOfEveryFeature } from "../../test/book-of-every-feature.ts";
import { redDot } from "../../test/red-dot.ts";
import { smallEpub as book } from "../../test/small-epub.ts";
import { bearsDamage, bring, linksIn } from "../../test/brought.ts";

const inFolder =
  (folder: string) =>
  (files: Record<string, Uint8Array>): Record<string, Uint8Array> =>
    Object.fromEntries(Object.entries(files).map(([name, bytes]) => [folder + name, bytes]));

describe("an e-book", () => {
  test("is its pages in their order, with links from one to the other, its pictures, and the files in it", async () => {
    const bytes = book(
      {
        "a.xhtml": `<h2>Tides</h2><p id="low">Low<a id="spot"/> water. See <a href="b.xhtml">ways</a>, <a href="b.xhtml#post">a post</a>, <a href="#low">low</a>, <a href="../plan.pdf">plan</a>, <a href="https://tides.example/">hours</a>.</p><p><img src="../m.png" alt="Map"/></p>`,
        "b.xhtml": `<h2>Ways</h2><p>By foot&nbsp;only.</p><ul><li id="post">A <a href="a.xhtml#spot">post</a></li></ul>`,
      },
      { "OPS/plan.pdf": strToU8("%PDF-"), "OPS/m.png": redDot },
    );
    const { title, chapters, pictures, companions } = await bring(bytes);
    expect([title, chapters.length, pictures.length]).toEqual(["Tides", 2, 1]);
    expect(companions).toMatchObject([{ name: "plan.pdf" }]);
    expect(await linksIn(bytes)).toEqual([
      ["ways", "→ Ways"],
      ["a post", expect.stringContaining("post")],
      ["low", expect.stringContaining("low")],
      ["plan", companions.length === 1 ? expect.any(String) : ""],
      ["hours", "https://tides.example/"],
      ["post", expect.stringContaining("spot")],
    ]);
  });

  // What people pack again, they often pack with the folder that it lies in.
  test.each<[string, (files: Record<string, Uint8Array>) => Record<string, Uint8Array>]>([
    ["in a folder", inFolder("tides/")],
    [
      "in a folder, with what a packing program leaves",
      (files) => ({ ...inFolder("tides/")(files), "__MACOSX/tides/._a": redDot, ".DS_Store": redDot }),
    ],
    ["without its type", ({ mimetype: _, ...files }) => files],
    [
      "packed once more, with a file beside it",
      (files) => ({ "tides/tides.epub": zipSync(files), "tides/plan.pdf": redDot }),
    ],
  ])("is read %s", async (_, packed) => {
    const pages = {
      "b.xhtml": `<h1>Ways</h1><p>By foot, at <a href="a.xhtml#low">low water</a>.</p>`,
      "a.xhtml": `<h1 id="low">Tides</h1>`,
    };
    const { title, author, language, chapters, arrival } = await bring(
      zipSync(packed(unzipSync(book(pages)))),
    );
    expect({ title, author, language }).toEqual({ title: "Tides", author: "Orla Tindrum", language: "en" });
    expect(chapters.map((doc) => doc.child(0).textContent)).toEqual(["Ways", "Tides"]);
    expect(arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0, changed: 0 });
  });

  // Common practice of some programs: an item for each place of a page, and in the spine, too.
  test("of which a page is said to be in it several times has it once", async () => {
    const { "OPS/book.opf": opf, ...files } = unzipSync(
      book({
        "a.xhtml": `<h1>Tides</h1><p id="low">Low, see <a href="b.xhtml#post">the post</a>.</p>`,
        "b.xhtml": `<h1 id="post">Posts</h1><p>At <a href="a.xhtml#low">low water</a>.</p>`,
      }),
    );
    const said = strFromU8(opf!)
      .replace(
        "</manifest>",
        '<item id="low" href="text/a.xhtml#low" media-type="application/xhtml+xml"/></manifest>',
      )
      .replace("</spine>", '<itemref idref="low"/><itemref idref="p0"/></spine>');
    const bytes = zipSync({ ...files, "OPS/book.opf": strToU8(said) });
    const { chapters, arrival } = await bring(bytes);
    expect(chapters.map((doc) => doc.child(0).textContent)).toEqual(["Tides", "Posts"]);
    expect(arrival!.counts).toMatchObject({ intact: 2, changed: 0, lost: 0, extra: 0 });
    const { pages } = readFinishedEpub(bytes);
    expect(pages.map(({ path, isInOrder }) => [path, isInOrder])).toEqual([
      ["OPS/nav.xhtml", true],
      ["OPS/text/a.xhtml", true],
      ["OPS/text/b.xhtml", true],
    ]);
    expect(waysIntoEpub(bytes).map(({ at }) => at)).toEqual(
      waysIntoEpub(zipSync({ ...files, "OPS/book.opf": opf! })).map(({ at }) => at),
    );
    const asked = pages.map((page) => ({
      ...page,
      links: page.links.map((link) => ({ ...link, description: "There" })),
    }));
    const saved = saveFinishedEpub(bytes, asked).bytes;
    expect(proveSavedEpub(bytes, saved, asked, { files: new Map(), places: new Map() })).toMatchObject({
      complete: true,
      intact: 4,
    });
  });

  test("has notes by type and role, without their ways back", async () => {
    const bytes = book({
      "a.xhtml": `<h1>Tides</h1><p>One<a epub:type="noteref" href="#n1">1</a> two<a role="doc-noteref" href="b.xhtml#n2">2</a>.</p><aside epub:type="footnote" id="n1"><p>First, see <a href="https://a.example/">a</a>.</p></aside>`,
      "b.xhtml": `<h1>Notes</h1><ol><li role="doc-endnote" id="n2"><p>Second <a role="doc-backlink" href="a.xhtml">back</a></p></li></ol>`,
    });
    const { chapters } = await bring(bytes);
    const notes = chapters.flatMap((doc) => doc.children.filter(({ type }) => type.name === "note"));
    expect(notes.map((note) => note.textContent.trim())).toEqual(["First, see a.", "Second"]);
    expect(await linksIn(bytes)).toEqual([["a", "https://a.example/"]]);
  });

  test("tells the pages of its print edition as anchors, and none of their numbers stands in the text", async () => {
    const nav = `<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops"><body><nav epub:type="page-list"><ol><li><a href="text/a.xhtml#p1">1</a></li><li><a href="text/a.xhtml#low">2</a></li><li><a href="text/b.xhtml#p3">Page 3</a></li></ol></nav></body></html>`;
    const pages = {
      "a.xhtml": `<span epub:type="pagebreak" id="pxii" title="xii"/><h1>Tides</h1><div epub:type="pagebreak" id="p1">[1]</div><p>Low <span role="doc-pagebreak" id="p1a" aria-label="1a">1a</span>water.</p><p id="low">Slack, as on <a href="b.xhtml#p3">page 3</a>.</p>`,
      "b.xhtml": `<h1>Ways</h1><ul><li><p>By foot.</p></li></ul><a id="p3"/>`,
    };
    const bytes = book(pages, { "OPS/nav.xhtml": strToU8(nav) });
    const { chapters, leftOut, arrival } = await bring(bytes);
    const anchors = chapters.flatMap((doc) => placesOf(doc)).filter(({ kind }) => kind === "anchor");
    expect(anchors.map(({ text }) => text)).toEqual(["page 1", "page 1a", "page 2", "Page 3"]);
    expect(chapters.map((doc) => doc.children.map((block) => block.textContent))).toEqual([
      ["Tides", "Low water.", "Slack, as on page 3."],
      ["Ways", "By foot."],
    ]);
    expect(await linksIn(bytes)).toEqual([["page 3", "→ Page 3"]]);
    expect(arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0 });
    expect(leftOut).toMatchObject([{ what: "Where 5 pages of the print edition begin" }]);
  });

  test("has a place anywhere in a heading as that heading, for both readers", async () => {
    const bytes = book({
      "a.xhtml": `<h1>Tides<a id="late"/></h1><p>Words. <a href="b.xhtml#end">ways</a></p>`,
      "b.xhtml": `<h1>Ways over the sands <span id="end">and back</span></h1><p>By <a href="a.xhtml#late">tides</a>.</p>`,
    });
    expect((await bring(bytes)).arrival!.counts).toMatchObject({ intact: 2, changed: 0, lost: 0 });
  });

  test("of version 2 tells them in its NCX", async () => {
    const ncx = `<ncx xmlns="http://www.daisy.org/z3986/2005/ncx/"><pageList><pageTarget type="normal" value="6"><content src="text/a.xhtml#map"/></pageTarget><pageTarget type="normal" value="5"><navLabel><text>5</text></navLabel><content src="text/a.xhtml#drawn"/></pageTarget><pageTarget type="normal" value="7"><navLabel><text>7</text></navLabel><content src="text/a.xhtml#p7"/></pageTarget></pageList></ncx>`;
    const bytes = book(
      {
        "a.xhtml": `<h1>Tides</h1><p id="map">Low <a id="p7"></a>water.</p><p><img id="drawn" src="../m.png" alt="Map"/></p>`,
      },
      { "OPS/toc.ncx": strToU8(ncx), "OPS/m.png": redDot },
      { "toc.ncx": "application/x-dtbncx+xml" },
    );
    const { chapters } = await bring(bytes);
    // A target without a label names no page, and a picture that begins one stays.
    expect(placesOf(chapters[0]!).map(({ text }) => text)).toEqual(["Tides", "page 7", "page 5"]);
    expect(JSON.stringify(chapters[0]!.toJSON())).toContain('"alt":"Map"');
  });

  test("says by its types what is set off and what is a part", async () => {
    const bytes = book({
      "a.xhtml": `<section epub:type="part"><h1>North</h1></section>`,
      "b.xhtml": `<section epub:type="preface"><h1>Before</h1><p>Words.</p></section>`,
      "c.xhtml": `<section><h1>Tides</h1><div epub:type="epigraph"><p>Wait.</p></div></section>`,
    });
    const { chapters, roles } = await bring(bytes);
    expect(roles).toEqual(["part", "unnumbered", "chapter"]);
    expect(chapters[2]!.child(1).attrs).toMatchObject({ kind: "epigraph" });
  });

  test("of ours comes in again with every link of its text, and none that leads nowhere", async () => {
    const own = bookOfEveryFeature();
    const bytes = writeEpub(own);
    const found = await linksIn(bytes);
    for (const { on, text, destination } of own.chapters.flatMap(({ doc }) => linkUses(doc)))
      if (on === "words" && destination.kind === "web")
        expect(found).toContainEqual(expect.arrayContaining([text, destination.address]));
    expect(found.filter(([, to]) => to === "→ nowhere")).toEqual([]);
  });

  test("that is damaged is read or refused in a word", async () => {
    const sound = book({ "a.xhtml": '<h1>T</h1><p><a href="#x">y</a></p>' });
    await bearsDamage(sound);
  });
});
