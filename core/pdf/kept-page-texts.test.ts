import { expect, test } from "@jest/globals";
import { KeptPageTexts } from "./kept-page-texts.ts";

test("of more pages than are kept those that nobody asked for longest are let go", () => {
  const kept = new KeptPageTexts<string>();
  for (let i = 0; i < 1_500; i++) kept.keep(String(i), `text ${i}`);
  expect(kept.of("0")).toBe("text 0");
  kept.keep("one more", "and its text");
  expect(kept.of("1")).toBeNull();
  expect(["0", "2", "1499", "one more"].filter((digest) => kept.of(digest) === null)).toEqual([]);
});
