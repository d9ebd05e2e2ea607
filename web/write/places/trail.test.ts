import { expect, test } from "@jest/globals";
import { firstAt } from "../links/links-in-view";
import { useTrail } from "./trail";

test("the way back goes step by step, and is forgotten after fifty", () => {
  const { leave, back } = useTrail.getState();
  for (let i = 0; i < 60; i++) leave({ chapterId: `c${i}`, from: i, to: i, scrolled: i * 10 });
  expect(back()).toEqual({ chapterId: "c59", from: 59, to: 59, scrolled: 590 });
  for (let i = 0; i < 48; i++) back();
  expect(back()).toMatchObject({ chapterId: "c10" });
  expect(back()).toBeNull();
});

test("the first item from which on something holds is found at both ends and between", () => {
  const numbers = Array.from({ length: 37 }, (_, i) => i * 2);
  for (let wanted = -1; wanted <= 75; wanted++) {
    const plain = numbers.findIndex((n) => n >= wanted);
    expect(firstAt(numbers, (n) => n >= wanted)).toBe(plain === -1 ? numbers.length : plain);
  }
  expect(firstAt([], () => true)).toBe(0);
});
