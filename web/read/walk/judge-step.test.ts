import { describe, expect, test } from "@jest/globals";
import type { ExportWithProof } from "../../api/client";
import { differenceOf, intentionsOf, unwalked } from "./judge-step";

type Row = ExportWithProof["rows"][number];

const row = (more: Partial<Row>): Row => ({
  linkId: "l",
  chapter: "Tides",
  text: "the office",
  destination: "https://tides.example/",
  destinationName: "https://tides.example/",
  description: null,
  leadsTo: "address",
  expected: "https://tides.example/",
  landing: null,
  verdict: "intact",
  found: ["page 1, at 1 2 3 4"],
  note: null,
  ...more,
});
const place = row({ leadsTo: "place", expected: "ways", landing: "The ways over the sand" });

describe("what a walk finds differs from the manuscript", () => {
  test.each([
    [
      "an address that is another",
      row({}),
      { at: "address", address: "https://other.example/" },
      "tides.example",
    ],
    ["a jump where an address is meant", row({}), { at: "nowhere" }, "nowhere"],
    [
      "a file where a place is meant",
      place,
      { at: "file", path: "files/plan.pdf", isThere: true },
      "should lead to ways",
    ],
    [
      "another text",
      place,
      { at: "place", on: "Page 3", words: "The inns of Aldry", picture: null },
      "“The ways over the sand”",
    ],
    [
      "a file that did not come along",
      row({ leadsTo: "file", expected: "files/plan.pdf" }),
      { at: "file", path: "files/plan.pdf", isThere: false },
      "did not come along",
    ],
  ] as [string, Row, Parameters<typeof differenceOf>[0], string][])(
    "by %s",
    (_what, meant, landed, words) => {
      expect(differenceOf(landed, meant)).toContain(words);
    },
  );

  test("by nothing, where it lands as it should", () => {
    expect(differenceOf({ at: "address", address: "https://tides.example/" }, row({}))).toBeNull();
    const landed = {
      at: "place",
      on: "Page 3",
      words: "2 The ways over the sand. By",
      picture: null,
    } as const;
    expect(differenceOf(landed, place)).toBeNull();
    // In a narrow cell, beside those of its row.
    const inCell = { ...landed, words: "The ways Refuges\nover the for the\nsand night" };
    expect(differenceOf(inCell, place)).not.toBeNull();
    expect(differenceOf({ ...inCell, inColumns: ["The ways\nover the\nsand"] }, place)).toBeNull();
  });

  test("by nothing, where the manuscript means nothing by it; but it has to lead somewhere", () => {
    expect(differenceOf({ at: "address", address: "https://any.example/" }, undefined)).toBeNull();
    expect(differenceOf({ at: "nowhere" }, undefined)).not.toBeNull();
  });
});

test("a link over two pages is meant by both its pieces, and absent only where the reader has neither", () => {
  const broken = row({ found: ["page 1, at 1 2 3 4", "page 2, at 5 6 7 8"] });
  const lost = row({ text: "the inn", found: ["page 9, at 1 1 2 2"] });
  const intentions = intentionsOf({ rows: [broken, lost], madeRows: [] });
  expect(intentions.get("page 2, at 5 6 7 8")).toBe(broken);
  const links = broken.found.map((where) => ({ where, on: "Page", words: "the office" }));
  expect(unwalked(intentions, links)).toEqual([lost]);
});
