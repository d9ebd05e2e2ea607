import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { generatedBook } from "../test/generated-book.ts";
import { usedPictures } from "./book.ts";
import { writeChapter } from "./chapter.ts";
import { picturesInJson } from "./pictures-in-json.ts";

test("a chapter's JSON names the pictures that its document shows", () => {
  let found = 0;
  fc.assert(
    fc.property(generatedBook, ({ chapters }) => {
      for (const { doc } of chapters) {
        const named = picturesInJson(writeChapter(doc));
        found += named.length;
        expect(new Set(named)).toEqual(usedPictures({ chapters: [{ doc }] }));
      }
    }),
    { numRuns: 50 },
  );
  expect(found).toBeGreaterThan(0);
});

test("what is no chapter names none", () => {
  for (const json of [
    null,
    1,
    "x",
    [],
    { content: 1 },
    { type: "picture", attrs: { file: 1 } },
    { type: "picture" },
  ])
    expect(picturesInJson(json)).toEqual([]);
});
