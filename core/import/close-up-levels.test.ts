import { expect, test } from "@jest/globals";
import { bring } from "../test/brought.ts";

/** The headings that a page of such ones becomes: chapters by their titles, others with their levels in the book. */
async function headingsOf(...levels: number[]): Promise<string[]> {
  const page = levels.map((level, i) => `<h${level}>Heading ${i}</h${level}><p>Sand.</p>`).join("");
  const { chapters, leftOut } = await bring(new TextEncoder().encode(`<!doctype html>${page}`));
  const found = leftOut.map(({ sort }) => sort);
  for (const doc of chapters)
    doc.descendants((node) => {
      if (node.type.name === "title") found.push("chapter");
      if (node.type.name === "heading") found.push(String(node.attrs["level"]));
    });
  return found;
}

test.each([
  // None is too deep: gaps are the author’s.
  [
    [1, 3, 5],
    ["chapter", "2", "4"],
  ],
  [
    [1, 4, 5, 6, 5, 1, 4],
    ["chapter", "1", "2", "3", "2", "chapter", "1"],
  ],
  [
    [1, 2, 4, 6],
    ["chapter", "1", "2", "3"],
  ],
  // What begins no chapter begins none now.
  [
    [2, 6, 2],
    ["chapter", "1", "2", "1"],
  ],
  // There is no gap to close.
  [
    [1, 2, 3, 4, 5, 6],
    ["Headings below level 4", "chapter", "1", "2", "3", "4", "4"],
  ],
])("headings of the levels %j become %j", async (levels, made) => {
  expect(await headingsOf(...levels)).toEqual(made);
});
