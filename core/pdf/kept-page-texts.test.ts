import { expect, test } from "@jest/globals";
import { KeptPageTexts } from "./kept-page-texts.ts";

test("of more pages than are kept those that nobody asked for longest are let go", () => {
  const kept = new KeptPageTexts();
  const text = (words: string) => ({ pieces: [{ words, y: 0, height: 0 }], marked: new Map() });
  for (let i = 0; i < 1_500; i++) kept.keep(String(i), text(String(i)));
  expect(kept.of("0")!.pieces[0]!.words).toBe("0");
  kept.keep("one more", text("one more"));
  expect(kept.of("1")).toBeNull();
  expect(["0", "2", "1499", "one more"].filter((digest) => kept.of(digest) === null)).toEqual([]);
});
