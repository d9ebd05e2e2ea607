import { expect, test } from "@jest/globals";
import { exportFormats, exportOptions } from "./formats/formats.ts";
import { bookOfPlaces } from "../test/book-of-places.ts";
import { bookOf } from "../test/sample-book.ts";
import { planLinks } from "./link-plan.ts";

const plan = (format: (typeof exportFormats)[number], book = bookOfPlaces()) =>
  planLinks(book, exportOptions({ format }));

test("every kind of link is counted, and what becomes of it is told for each format", () => {
  for (const format of exportFormats) {
    expect(plan(format).map(({ kind, count }) => [kind, count])).toEqual([
      ["place", 2],
      ["reference", 7],
      ["note", 4],
      ["signpost", expect.any(Number)],
    ]);
    expect(plan(format).every(({ becomes }) => /^[A-Z].*\.$/.test(becomes))).toBe(true);
  }
});

test("a target that is gone is told by its chapter and words, and pages that a format lacks are counted", () => {
  const references = plan("epub").find(({ kind }) => kind === "reference")!;
  expect(references.lost).toEqual([
    { chapter: "Questions", text: "(its text)", reason: "The place that it follows is gone." },
  ]);
  expect(references.becomes).toContain("2 that would tell a page say what was chosen");
  expect(plan("pdf").find(({ kind }) => kind === "reference")!.becomes).not.toContain("would tell");
});

test("choices change what is told: addresses for print, and files that stay at home", () => {
  const book = bookOf("# T\n\n[a](https://a.example/) [b](mailto:b@b.example) [c](plan.pdf)");
  const [web, email, file] = planLinks(
    book,
    exportOptions({ format: "pdf", addresses: "list", companions: "left-out" }),
  );
  expect(web!.becomes).toMatch(/Listed at the end too\.$/);
  expect(email).toMatchObject({ kind: "email", count: 1, lost: [] });
  expect(file!.becomes).toContain("stay at home");
  expect(file!.lost).toEqual([{ chapter: "T", text: "c", reason: expect.stringContaining("plan.pdf") }]);
  // The e-book has its files inside whatever is chosen for the others.
  expect(planLinks(book, exportOptions({ format: "epub", companions: "left-out" }))[2]!.becomes).toContain(
    "inside the e-book",
  );
});
