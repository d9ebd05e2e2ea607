import { expect, test } from "@jest/globals";
import { useTrail } from "./trail";

test("the way back goes step by step, and is forgotten after fifty", () => {
  const { leave, back } = useTrail.getState();
  for (let i = 0; i < 60; i++) leave({ chapterId: `c${i}`, from: i, to: i, scrolled: i * 10 });
  expect(back()).toEqual({ chapterId: "c59", from: 59, to: 59, scrolled: 590 });
  for (let i = 0; i < 48; i++) back();
  expect(back()).toMatchObject({ chapterId: "c10" });
  expect(back()).toBeNull();
});
