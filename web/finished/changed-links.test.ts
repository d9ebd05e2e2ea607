import { expect, test } from "@jest/globals";
import type { PdfLink, PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { changedLinks } from "./changed-links.ts";

const link = (id: string, description: string | null = null): PdfLink => ({
  id,
  from: null,
  words: id,
  areas: [[0, 0, 1, 1]],
  destination: { kind: "web", address: "https://tides.example/" },
  description,
  frame: { line: "none", thickness: 2, colour: "#1d4f8f" },
  isInStructure: true,
});
const page = (...links: PdfLink[]): PdfPage => ({
  type: "pdf-page",
  number: 1,
  label: "1",
  box: [0, 0, 100, 100],
  links,
  places: [],
  untouched: [],
  isBlank: false,
});
const told = ({ links }: PdfPage) => links.map(({ id, description }) => [id, description]);

test("what was done to some links is done to a page on which others have changed since, and taken back from it", () => {
  const before = page(link("a"), link("b"), link("c"));
  const after = page(link("a", "Tables"), link("c"), link("d"));
  // Meanwhile c was described and e put in.
  const now = page(link("a", "Tables"), link("c", "Later"), link("d"), link("e"));
  expect(told(changedLinks(now, after, before))).toEqual([
    ["a", null],
    ["c", "Later"],
    ["e", null],
    ["b", null],
  ]);
  expect(told(changedLinks(before, before, after))).toEqual([
    ["a", "Tables"],
    ["c", null],
    ["d", null],
  ]);
  const spot = { id: "spot-1-2-3", of: "spot" as const, level: null, name: "", x: 2, y: 3 };
  expect(changedLinks(before, before, { ...before, places: [spot] }).places).toEqual([spot]);
});
