import { expect, test } from "@jest/globals";
import { smallEpub } from "../../test/small-epub.ts";
import { nearestPlace } from "./nearest-place.ts";
import { readFinishedEpub } from "./read-finished.ts";

const { pages } = readFinishedEpub(
  smallEpub({
    "a.xhtml": '<h1 id="Huts_one">Huts</h1><p id="x1">First.</p>',
    "b.xhtml": '<h1>Ways</h1><p id="x-1">Second.</p><p id="low-Water">Low.</p>',
  }),
);
const from = pages.find(({ path }) => path.endsWith("a.xhtml"))!;

test.each([
  ["#huts-one", "Huts"],
  ["b.xhtml#lowwater", "Low."],
  ["a.xhtml#low%20water", "Low."],
  ["b.xhtml#x1", "Second."],
  ["#x_1", "First."],
  ["../old/B.xhtml#gone", "Ways"],
  ["b.xhtml#gone", "Ways"],
  ["#gone", null],
  ["c.xhtml#x1", null],
  ["c.xhtml", null],
])("%s, which leads nowhere, most likely means %s", (href, name) => {
  expect(nearestPlace(pages, from, href)?.name ?? null).toBe(name);
});
