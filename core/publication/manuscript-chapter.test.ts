import { expect, test } from "@jest/globals";
import { bringIn } from "../test/sample-book.ts";
import { ManuscriptChapter } from "./manuscript-chapter.ts";

const chapter = (): ManuscriptChapter =>
  new ManuscriptChapter(
    bringIn("# T\n\n[a](https://a.example/)\n\n## Low water\n\n[b](https://b.example/) and [c](#low-water)")
      .chapters[0]!,
  );

test("a part tells its links with where they stand, and its places", () => {
  const part = chapter();
  expect(part.links().map(({ text, on, under }) => [text, on, under])).toEqual([
    ["a", "words", ""],
    ["b", "words", "Low water"],
    ["c", "words", "Low water"],
  ]);
  expect(part.places().map(({ kind, text }) => [kind, text])).toEqual([
    ["title", "T"],
    ["heading", "Low water"],
  ]);
});

test("links are changed at once, what changed is told, and is taken back where it is still so", () => {
  const before = chapter();
  const { part, count } = before.changed(({ text }) =>
    text === "a" ? "remove" : text === "b" ? { text: "the tide office", description: "By day" } : null,
  );
  expect(count).toBe(2);
  expect(part.links().map(({ text, description }) => [text, description])).toEqual([
    ["the tide office", "By day"],
    ["c", null],
  ]);
  const differences = before.differences(part);
  expect(differences.map(({ kind }) => kind).sort()).toEqual(["changed", "removed"]);
  const back = part.takenBack(differences);
  // Where a removed link stood nobody can say.
  expect(back.count).toBe(1);
  expect(back.part.links().map(({ text }) => text)).toEqual(["b", "c"]);

  const [office] = part.links();
  const moved = part.changed(({ id }) =>
    id === office!.id ? { destination: { kind: "web", address: "https://other.example/" } } : null,
  );
  expect(moved.part.takenBack(differences).count).toBe(0);
  expect(before.changed(() => null)).toEqual({ part: before, count: 0 });
});

test("a link's own look is a difference, and is taken back with it", () => {
  const before = chapter();
  const look = { colour: "#7a1fa2", underline: "none" as const, bold: true };
  const { part } = before.changed(({ text }) => (text === "a" ? { look } : null));
  const differences = before.differences(part);
  expect(differences).toEqual([expect.objectContaining({ kind: "changed" })]);
  expect(part.links()[0]!.look).toEqual(look);
  expect(part.takenBack(differences).part.links()[0]!.look).toBeNull();
});
