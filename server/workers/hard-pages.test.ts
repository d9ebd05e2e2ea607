import { expect, test } from "@jest/globals";
import { importManuscript } from "@vennet/core/import/import-manuscript";
import { prove } from "@vennet/core/proof/prove";
import { exportFormats, exportOptions, formats } from "@vennet/core/publish/formats/formats";
import { prepare } from "@vennet/core/publish/prepare";
import { redDot } from "@vennet/core/test/red-dot";
import { bookOf } from "@vennet/core/test/sample-book";
import { textFonts } from "./fonts.ts";
import { Typesetter } from "./typesetter.ts";

const link = (words: string): string => `<a href="https://tides.example/${words}">${words}</a>`;
const dot = `data:image/png;base64,${Buffer.from(redDot).toString("base64")}`;
const jump = (to: string): string => `<a href="#${to}">to ${to}</a>`;
const tables = {
  "rows of different lengths": `<tr><td>A</td></tr><tr><td colspan=4>${link("wide")}</td></tr><tr><td>x</td><td>${link("next")}</td></tr>`,
  "a cell that reaches below the table": `<tr><td rowspan=50>A</td><td>b</td></tr><tr><td>${link("deep")}</td></tr>`,
  "a head that reaches down among the rows": `<tr><th rowspan=2>A</th><th>B</th></tr><tr><td>${link("one")}</td></tr>`,
  "cells over cells": `<tr><td rowspan=3>A</td><td>b</td><td rowspan=2>c</td></tr><tr><td colspan=3>${link("over")}</td></tr><tr><td>d</td><td>e</td><td>f</td></tr>`,
  "places in narrow cells, whose words are parted beside those of the next": `<tr><th><a name="tag">Causeway-Tag</a>${jump("tag")}</th>${"<th>Protocol</th><th>Key Ex. Auth.</th>".repeat(3)}<th><a name="key">Key of the crossings</a>${jump("key")}</th></tr>`,
  "names that are wider than their columns": `<tr><th>ebb</th><td>${link("HESTERLEY_CAUSEWAY_REFUGES_OF_THE_SOUND")}</td><td>${"the tide of the day ".repeat(9)}</td><td><code>${link("CausewayRefugePostsHandlerOfTheWesternSound")}</code></td></tr><tr><td colspan=3><table><tr><td>${"low water ".repeat(9)}</td><td><ul><li><code>${link("hesterleysoundwalksandposts")}</code></li></ul></td></tr></table></td><td><pre>${link("low_water_at_the_posts")}</pre></td></tr>`,
  "headings side by side": `<tr><td><ul>${"<li>A hut among the cockle beds and the marsh, with a lamp</li>".repeat(12)}</ul></td><td>${["Refuges", "Warnings", "Tables", "Ferries", "Huts"].map((words, i) => `<h${2 + (i % 3)} id="h${i}">${words} of the sound</h${2 + (i % 3)}><p>${jump(`h${i}`)}</p>`).join("")}</td></tr>`,
  "links on pictures that were not brought, and a heading in the middle of a cell": `<tr><td><a href="https://tides.example/1"><img src="e.png" alt="Against the silting of the sound"></a></td><td><a href="https://tides.example/2"><img src="g.png" alt="The gull of the walks"></a><a href="https://tides.example/3"><img src="w.png" alt="Red sand"></a></td><td align="center"><h2 id="mid">Causeways of the whole western sound</h2><p>${jump("mid")}</p></td></tr><tr><td><img src="${dot}" alt="Dot"></td></tr>`,
  "an empty row": `<tr></tr><tr><td>${link("after")}</td></tr>`,
};
const texts = {
  "anchors in links, at their beginning, within and at their end": `<p>${["sup", "in", "end", "b"].map(jump).join(" ")}</p><ul><li>One <a href="https://tides.example/1"><sup id="sup">tables</sup></a></li><li>Two <a href="https://tides.example/2">tide <i id="in"></i>tables</a></li><li>Three <a href="https://tides.example/3">tables<i id="end"></i></a></li><li>Four <a href="https://tides.example/4"><b><i id="b">tide</i></b> tables</a></li></ul>`,
  "descriptions of several lines": `<p><a href="https://tides.example/" title="Low water\n  at\tnine">tides</a> ${jump("x")}</p><p id="x"><a href="#x" title="This\r\nline">line</a></p>`,
  "names in headings that are wider than a line": `<h1>Class ${link("CausewayRefugesBetweenTidesAndPosts")}</h1><p>Sand.</p><h1>Das ${link("Wattwanderwegsicherungsgesellschaftshaus")}</h1><p>Sand.</p><h2>In ${["hesterley", "causeways", "refuges", "Huts", "Lamps", "Posts"].map(link).join("::")}</h2><p>Sand.</p>`,
  "a place at a letter that has a line to itself": `<p>${jump("k")}</p><dl><dt id="k"><code>-k</code><br><code>--keep-to-the-posts</code></dt><dd>Do.</dd></dl>`,
};
const pages = [
  ...Object.entries(tables).map(([name, rows]) => [name, `<table>${rows}</table>`] as const),
  ...Object.entries(texts),
];
const typesetter = new Typesetter();

test.each(pages)("%s: go out in every format, with all links", async (_, body) => {
  const { chapters, pictures } = await importManuscript(
    {
      name: "page.html",
      bytes: new TextEncoder().encode(`<html><body><h1>T</h1>${body}</body></html>`),
    },
    { fallbackTitle: "T", baseAddress: null, pictureFor: () => null },
  );
  for (const format of exportFormats) {
    const options = exportOptions({ format });
    const all = chapters.map((doc, i) => ({ id: `chapter-${i}`, role: "chapter" as const, doc }));
    const shown = pictures.map(({ id, bytes }) => ({ id, bytes, mediaType: "image/png" as const }));
    const book = prepare(bookOf("", { chapters: all, pictures: shown }), options);
    const { bytes } = await formats[format].write(book, options, {
      name: "page",
      lastPages: null,
      textFonts,
      setPages: (...given) => typesetter.write(...given),
    });
    const { complete, faults, total } = prove(book, await formats[format].readBack(bytes));
    expect([format, complete, faults, total > 0]).toEqual([format, true, [], true]);
  }
});
