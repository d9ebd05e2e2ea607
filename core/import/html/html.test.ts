import { expect, test } from "@jest/globals";
import { zipSync } from "fflate";
import { linkUses } from "../../manuscript/links.ts";
import { placesOf } from "../../manuscript/outline.ts";
import { redDot } from "../../test/red-dot.ts";
import { bring, linksIn } from "../../test/brought.ts";

const bytes = (page: string): Uint8Array => new TextEncoder().encode(page);

test("a page is read by what it is: its body, not its head, its words in the encoding that it says", async () => {
  const page = `<!DOCTYPE html><html><head><title>Head</title><meta charset="iso-8859-1"><style>p{}</style></head><body><h1>Gezeiten f\u00fcr Fu\u00dfg\u00e4nger</h1><p>Siehe <a href="https://tides.example/">Tafel</a>.</p></body></html>`;
  const { title, chapters, leftOut } = await bring(Buffer.from(page, "latin1"));
  expect([title, chapters[0]!.textContent, leftOut]).toEqual([
    "Head",
    "Gezeiten für FußgängerSiehe Tafel.",
    [],
  ]);
});

test("any element that a link leads to is a place: a paragraph, an item, a cell, a section, a picture, a listing", async () => {
  const page = `<html><body><h1>T</h1>
    <p>${["p", "li", "ul", "td", "sec", "img", "pre", "span", "dt", "a%20b", "old"].map((id) => `<a href="#${id}">${id}</a>`).join(" ")}</p>
    <p id="p">Para</p><ul id="ul"><li>First</li><li id="li">Item</li></ul>
    <table><tr><td id="td">Cell</td></tr></table><section id="sec"><h2>Section</h2><p>Text</p></section>
    <p>See <img id="img" src="x.png" alt="X"></p><pre id="pre">code</pre><p>In <span id="span">a span</span></p>
    <dl><dt id="dt">Term</dt><dd>Said</dd></dl><p id="a b">Blank</p><p><a name="old">Old</a></p><p id="idle">Idle</p></body></html>`;
  expect(await linksIn(bytes(page))).toEqual([
    ["p", "→ p"],
    ["li", "→ li"],
    ["ul", "→ ul"],
    ["td", "→ td"],
    ["sec", "→ Section"],
    ["img", "→ img"],
    ["pre", "→ pre"],
    ["span", "→ span"],
    ["dt", "→ dt"],
    ["a%20b", "→ a b"],
    ["old", "→ old"],
  ]);
  const { chapters, leftOut } = await bring(bytes(page));
  expect(placesOf(chapters[0]!).filter(({ kind }) => kind === "anchor")).toHaveLength(10);
  expect(leftOut.map(({ what }) => what)).toEqual(["The picture x.png"]);
});

test("an anchor that has an id and an old name is a place under both; an id elsewhere is meant before a name", async () => {
  const page = `<html><body><h1>T</h1><p>${["ebb", "flood", "neap"].map((id) => `<a href="#${id}">${id}</a>`).join(" ")}</p>
    <p>Going <a name="ebb" id="flood">out</a></p><p>Falling <a name="neap" id="low">low</a></p><p id="neap">Neap tides</p></body></html>`;
  const { chapters, arrival } = await bring(bytes(page));
  const at = new Map(placesOf(chapters[0]!).map(({ id, context }) => [id, context]));
  const lands = linkUses(chapters[0]!).map(({ destination }) =>
    destination.kind === "place" ? at.get(destination.target) : null,
  );
  expect([lands, arrival!.counts.intact]).toEqual([["out", "out", "Neap tides"], 3]);
});

test("an id that is written encoded is a place for links that write it so, on a page and from page to page", async () => {
  const page = (to: string) =>
    `<html><body><h1>T</h1><p><a href="${to}#ebb%3CT%3E">as written</a> <a href="${to}#fl%25od">encoded</a></p><p id="ebb%3CT%3E">Ebb</p><p id="fl%od">Flood</p></body></html>`;
  const folder = zipSync({ "a.html": bytes(page("b.html")), "b.html": bytes(page("")) });
  for (const file of [bytes(page("")), folder]) {
    const { chapters, arrival, leftOut } = await bring(file);
    const at = new Map(chapters.flatMap((doc) => placesOf(doc)).map(({ id, context }) => [id, context]));
    for (const { text, destination } of chapters.flatMap((doc) => linkUses(doc)))
      expect([text, at.get((destination as { target: string }).target)]).toEqual([
        text,
        text === "encoded" ? "Flood" : "Ebb",
      ]);
    expect([arrival!.counts.changed, leftOut]).toEqual([0, []]);
  }
});

test("a way of a heading to itself that is an icon of the page's own font is left out; other links keep their signs", async () => {
  const page = `<html><body><h1 id="a">Sands <a href="#a" title="Permalink">\uf0c1</a></h1><p><a href="#a">up \uf0c1</a> <a href="#a">\uf0c2</a> <a href="https://tides.example/">\uf0c1</a></p></body></html>`;
  const { chapters, arrival, leftOut } = await bring(bytes(page));
  expect(chapters[0]!.firstChild!.textContent).toBe("Sands");
  expect(linkUses(chapters[0]!).map(({ text }) => text)).toEqual(["up \uf0c1", "\uf0c2", "\uf0c1"]);
  expect([leftOut.map(({ sort }) => sort), arrival!.counts["left-out"], arrival!.counts.lost]).toEqual([
    ["Links without words"],
    1,
    0,
  ]);
});

test("relative links start where the page says, and areas of a map are links with their words", async () => {
  const page = `<!doctype html><base href="https://tides.example/guide/"><h1>T</h1><p><a href="../hours">hours</a> <a href="#t">up</a></p><img src="m.png" usemap="#m" alt="Map"><map name="m"><area href="head" alt="The head" coords="1,1,2,2"><area href="https://b.example/"></map>`;
  expect(await linksIn(bytes(page))).toEqual([
    ["hours", "https://tides.example/hours"],
    ["up", "→ T"],
    ["The head", "https://tides.example/guide/head"],
    ["https://b.example/", "https://b.example/"],
  ]);
});

test("attributes of a page that are called like ours are its own matter", async () => {
  const page = new TextEncoder().encode(
    '<!doctype html><h1>Sands</h1><p><a data-link="nav" href="https://a.example/">a</a> <a data-link="nav" href="https://b.example/">b</a><img data-areas="{" alt="Map" src="m.png" data-width="80"></p><div data-made="2026"><p>By hand, <a href="https://c.example/" data-reference="number">c</a>.</p></div><h2 data-level="4">Low</h2><p data-caption="table">x</p><nav data-signposts="contents"><a href="https://d.example/">d</a></nav>',
  );
  const { chapters, arrival } = await bring(page);
  const uses = linkUses(chapters[0]!);
  expect(uses.map(({ text }) => text)).toEqual(["a", "b", "c", "d"]);
  expect(new Set(uses.map(({ id }) => id)).size).toBe(4);
  expect(arrival!.counts).toEqual({ intact: 4, changed: 0, "left-out": 0, lost: 0, extra: 0 });
  expect(chapters[0]!.children.map(({ type }) => type.name)).not.toContain("caption");
  expect(chapters[0]!.textContent).toContain("By hand");
});

test("areas that no picture can have are links behind it, whatever shape the page gives them", async () => {
  const many = Array.from({ length: 120 }, (_, i) => `${i},${i % 7}`).join(",");
  const page = new TextEncoder().encode(
    `<!doctype html><h1>Sands</h1><p><img src="data:image/png;base64,${redDot.toString("base64")}" alt="Map" usemap="#m"></p><map name="m"><area shape="poly" coords="1,1,2,2" href="https://a.example/" alt="two corners"><area shape="poly" coords="${many}" href="https://b.example/" alt="too many"><area shape="rect" coords="0,0,1,1" href="https://c.example/" alt="a box"></map>`,
  );
  const { chapters, arrival } = await bring(page);
  expect(linkUses(chapters[0]!).map(({ on, text }) => `${on}: ${text}`)).toEqual([
    "hotspot: a box",
    "words: two corners",
    "words: too many",
  ]);
  expect(arrival!.counts).toEqual({ intact: 3, changed: 0, "left-out": 0, lost: 0, extra: 0 });
});

test("places and pictures in a listing are not lost: the ones stand before it, the others are told by their words", async () => {
  const page = `<h1 id="Top">T</h1><p><a href="#one">1</a> <a href="#two">2</a> <a href="#top">up</a></p><pre>ask <span id="one"><img src="1.png" alt="(1)"></span>\n<a name="two"></a>go</pre>`;
  const { chapters, arrival } = await bring(bytes(page));
  const [, , places, listing] = chapters[0]!.children;
  expect(listing!.textContent).toBe("ask (1)\ngo");
  expect(places!.children.map(({ attrs }) => attrs["name"])).toEqual(["one", "two"]);
  const ids = new Set(placesOf(chapters[0]!).map(({ id }) => id));
  const targets = linkUses(chapters[0]!).map(
    ({ destination }) => "target" in destination && destination.target,
  );
  expect(targets.map((target) => target === "book-top" || ids.has(String(target)))).toEqual([
    true,
    true,
    true,
  ]);
  // They lead to the listing, before their line, which is told where that is out of sight.
  expect(arrival!.counts).toMatchObject({ intact: 3, changed: 0, lost: 0, extra: 0 });
  const long = `<h1>T</h1><p><a href="#far">far</a></p><pre>${"ask the harbour master\n".repeat(40)}<a name="far"></a>go</pre>`;
  expect((await bring(bytes(long))).arrival!.counts).toMatchObject({ intact: 0, changed: 1 });
});

test("a place that is called like the top of a page is that place, and no other", async () => {
  const page = `<h1>T</h1><p>Words.</p><p id="Top">Here.</p><p><a href="#Top">there</a> <a href="#TOP">up</a></p>`;
  const { arrival } = await bring(bytes(page));
  expect(arrival!.links.map(({ verdict }) => verdict)).toEqual(["intact", "intact"]);
});

test("a picture whose alternative is there and empty is decorative, but none that is a link, and none without one", async () => {
  const picture = `data:image/png;base64,${Buffer.from(redDot).toString("base64")}`;
  const page = `<h1>T</h1><p><img src="${picture}" alt=""><img src="${picture}"><a href="https://a.example/"><img src="${picture}" alt=""></a></p>`;
  const { chapters } = await bring(bytes(page));
  const pictures = chapters[0]!.child(1).children.filter(({ type }) => type.name === "picture");
  expect(pictures.map(({ attrs }) => attrs["decorative"])).toEqual([true, false, false]);
});

test("a place anywhere in a heading is that heading for both readers", async () => {
  const heading = (name: string): string =>
    `<h2>${name} of the sound<span><a href="#${name}" id="${name}">#</a></span></h2><p>Words behind it.</p>`;
  const page = `<h1>T</h1><p><a href="#Tides">1</a> <a href="#Ways">2</a></p>${heading("Tides")}${heading("Ways")}`;
  const { arrival } = await bring(bytes(page));
  expect(arrival!.counts).toMatchObject({ intact: 4, changed: 0, lost: 0, extra: 0 });
});

test("links to the ids of a page’s outermost elements lead to its top", async () => {
  const page = `<!-- <body id="not"> --><html lang="en" id="page"><head><title>T</title><script>"<body id='no'>"</script></head><body class="x" id=whole><h1>Tides</h1><p>Up to <a href="#whole">the top</a>, <a href="#page">of all</a>, <a href="#no">nowhere</a>.</p></body></html>`;
  expect(await linksIn(bytes(page))).toEqual([
    ["the top", "→ Tides"],
    ["of all", "→ Tides"],
    ["nowhere", "→ nowhere"],
  ]);
  expect((await bring(bytes(page))).arrival!.counts).toMatchObject({ intact: 2, changed: 1 });
});

test("a page without a title of its own is called as the paragraph that text programs save as one", async () => {
  const body =
    '<p class="c1 title"><span>Ways\n</span>over sands</p><p>For all.</p><h1>Low water</h1><p>Wade.</p>';
  const { title, chapters } = await bring(bytes(`<html><body>${body}</body></html>`));
  expect([title, ...chapters.map((doc) => doc.firstChild!.textContent)]).toEqual([
    "Ways over sands",
    "Ways over sands",
    "Low water",
  ]);
});
