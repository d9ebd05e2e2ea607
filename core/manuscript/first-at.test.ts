import { expect, test } from "@jest/globals";
import { firstAt } from "./first-at.ts";

test("the first item from which on something holds is found at both ends and between", () => {
  const numbers = Array.from({ length: 37 }, (_, i) => i * 2);
  for (let wanted = -1; wanted <= 75; wanted++) {
    const plain = numbers.findIndex((n) => n >= wanted);
    expect(firstAt(numbers, (n) => n >= wanted)).toBe(plain === -1 ? numbers.length : plain);
  }
  expect(firstAt([], () => true)).toBe(0);
});
