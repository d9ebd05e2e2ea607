import { describe, expect, test } from "@jest/globals";
import { importManuscript } from "../import-manuscript.ts";
import { lineOfManyTags, lineTooDeep } from "./nest-depth.ts";

const bring = (text: string) =>
  importManuscript(
    { name: "walks.md", bytes: new TextEncoder().encode(text) },
    { fallbackTitle: "T", baseAddress: null, pictureFor: () => null },
  );
const lists = (depth: number): string =>
  Array.from({ length: depth }, (_, i) => `${"  ".repeat(i)}- step ${i}`).join("\n");

describe("what lies too deep in each other is refused with its line, before it costs anything", () => {
  test("quotes on one line, lists by their indentation, and both mixed", () => {
    expect(lineTooDeep(`# T\n\n${">".repeat(50_000)}`)).toBe(3);
    expect(lineTooDeep(`Low water.\n\n${lists(41)}`)).toBe(43);
    expect(lineTooDeep(`${lists(30)}\n${"  ".repeat(30)}- ${"> ".repeat(11)}x`)).toBe(31);
    expect(lineTooDeep(`${lists(40)}\n\nBack at the margin.\n\n${lists(40)}`)).toBeNull();
  });
  test("a rule, a date, a list of many items and code with blanks before it are no depth", () => {
    expect(lineTooDeep(`- a\n`.repeat(500))).toBeNull();
    expect(lineTooDeep(`Low water.\n\n${"- ".repeat(60)}\n\n${"* ".repeat(60)}\n`)).toBeNull();
    expect(
      lineTooDeep(`${"- ".repeat(3)}\n\n1876. Great flood.\n\n${" ".repeat(300)}- far right`),
    ).toBeNull();
  });
  test("the whole of it comes in up to the limit, and a reader's own depth is told with the line", async () => {
    const { chapters } = await bring(lists(40));
    expect(chapters[0]!.textContent).toContain("step 39");
    await expect(bring(lists(41))).rejects.toMatchObject({
      code: "too-deep",
      message: expect.stringMatching(/line 41/),
    });
    await expect(bring(`# T\n\n${"<div>".repeat(3_000)}`)).rejects.toMatchObject({
      code: "too-deep",
      message: expect.stringMatching(/line 3/),
    });
  });
  test("elements whose end may be left out do not add up", () => {
    expect(lineOfManyTags("<p>tide\n".repeat(900))).toBeNull();
    expect(lineOfManyTags(`${"<b>x</b>".repeat(900)}\n${"<i>".repeat(201)}`)).toBe(2);
  });
});
