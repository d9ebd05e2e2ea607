import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { linkUses } from "../../manuscript/links.ts";
import { bring } from "../../test/brought.ts";

/** What pages become: each chapter with its blocks, and the title to which the link of the first page leads. */
async function chaptersOf(pages: Record<string, string>): Promise<{ chapters: string[]; led: unknown[] }> {
  const files = Object.entries(pages).map(([name, body]) => [
    name,
    strToU8(`<html><body>${body}</body></html>`),
  ]);
  const { chapters, arrival } = await bring(zipSync(Object.fromEntries(files) as Record<string, Uint8Array>));
  expect(arrival!.links.filter(({ verdict }) => verdict !== "intact")).toEqual([]);
  const titles = new Map(
    chapters.map(({ firstChild }) => [firstChild!.attrs["id"], firstChild!.textContent]),
  );
  return {
    chapters: chapters.map((doc) => doc.children.map((node) => node.textContent.slice(0, 24)).join(" / ")),
    led: linkUses(chapters[0]!).map(({ destination }) =>
      titles.get("target" in destination ? destination.target : ""),
    ),
  };
}

const first = `<h1>Walks</h1><p><a href="b.html">on</a></p>`;
const ways = `<div><a href="a.html">Home</a> | <a href="a.html">Up</a></div>`;

test.each([
  [
    "its heading, which is within other elements",
    "<main><article><h3>Ebb</h3><p>Low</p></article></main>",
    "Ebb / Low",
  ],
  ["its heading, before the ways to other pages", `${ways}<h2>Ebb</h2><p>Low</p>`, "Ebb / Home | Up / Low"],
  [
    "its heading, whose places stay with it",
    `<header>${ways}</header><section id="ebb"><a name="tide"></a><h2>Ebb</h2><p>See <a href="#ebb">ebb</a>, <a href="#tide">tide</a></p></section>`,
    "Ebb / Home | Up / See ebb, tide",
  ],
  [
    "its own, not one of the ways to others",
    `<nav><h2>All walks</h2>${ways}</nav><main><h2>Ebb</h2><p>Low</p></main>`,
    "Ebb / All walks / Home | Up / Low",
  ],
  [
    "its file's name, where its headings are in a table",
    "<table><tr><td><h2>Ebb</h2><p>Low</p></td></tr></table>",
    "b / EbbLow",
  ],
])("a page of a folder begins a chapter with %s", async (_, body, expected) => {
  const { chapters, led } = await chaptersOf({ "a.html": first, "b.html": body });
  expect(chapters[0]).toBe("Walks / on");
  expect(chapters.slice(1)).toEqual([expected]);
  expect(led).toEqual([expected.split(" / ")[0]]);
});

test("a text that no heading begins is called by its file's name, and ends where one does", async () => {
  const text = `<p>${"The sand is firm. ".repeat(40)}</p><h2>Other walks</h2><p>None</p>`;
  const { chapters, led } = await chaptersOf({ "a.html": first, "b.html": text });
  expect(chapters).toEqual(["Walks / on", "b / The sand is firm. The sa", "Other walks / None"]);
  expect(led).toEqual(["b"]);
});

test("a heading that most pages have is the site's name, but where a page has no other", async () => {
  const page = (rest: string): string => `<div><h1>Hesterley Sound</h1></div>${rest}`;
  const { chapters, led } = await chaptersOf({
    "a.html": page(`<p><a href="b.html">on</a></p>`),
    "b.html": page("<h2>Ebb</h2><p>Low</p>"),
    "c.html": page("<h1>Flow</h1><p>High</p>"),
    "d.html": "<h1>Slack</h1><h2>Sound</h2>",
  });
  expect(chapters).toEqual([
    "Hesterley Sound / on",
    "Ebb / Hesterley Sound / Low",
    "Flow / Hesterley Sound / High",
    "Slack / Sound",
  ]);
  expect(led).toEqual(["Ebb"]);
});

test("a page that no heading begins is called as it calls itself, where no other page does", async () => {
  const page = (title: string, words: string): string => `<title>${title}</title><p id="top">${words}</p>`;
  const { chapters, led } = await chaptersOf({
    "a.html": first,
    "b.html": page("Ebb &amp;\n flow", "Low"),
    "c.html": page("Hesterley Sound", "Wade"),
    "d.html": page("Hesterley Sound", "Wait"),
  });
  expect(chapters).toEqual(["Walks / on", "Ebb & flow / Low", "c / Wade", "d / Wait"]);
  expect(led).toEqual(["Ebb & flow"]);
});
