import { expect, test } from "@jest/globals";
import { nextLink, pagesWithLinks, type LinkOnPage } from "./going-through.ts";

const links: LinkOnPage[] = [
  { id: "a", number: 1 },
  { id: "b", number: 1 },
  { id: "c", number: 4 },
];

test.each<[string | null, number, 1 | -1, string]>([
  ["a", 1, 1, "b"],
  ["a", 1, -1, "c"],
  ["c", 4, 1, "a"],
  [null, 1, 1, "a"],
  [null, 2, 1, "c"],
  [null, 2, -1, "b"],
  [null, 9, 1, "c"],
  ["gone", 4, -1, "c"],
])("from link %s on page %i by %i one comes to %s", (active, number, by, id) => {
  expect(nextLink(links, active, number, by)?.id).toBe(id);
});

test("where there is no link, there is no next one", () => {
  expect(nextLink([], null, 1, 1)).toBeNull();
});

test("links that were chosen come onto their pages, once each, behind those that are there", () => {
  const page = (number: number, ...ids: string[]) => ({
    id: `p${number}`,
    revision: 1,
    document: { number, links: ids.map((id) => ({ id })), places: [], untouched: [] },
  });
  const chosen = [
    { number: 2, id: "x" },
    { number: 1, id: "y" },
    { number: 2, id: "z" },
  ];
  const made = pagesWithLinks([page(1, "a"), page(2), page(3)], chosen, ({ id }) => ({ id }));
  expect(made.map(({ number, links: all }) => [number, all.map(({ id }) => id)])).toEqual([
    [2, ["x", "z"]],
    [1, ["a", "y"]],
  ]);
});
