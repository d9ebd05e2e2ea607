import { describe, expect, test } from "@jest/globals";
import { placeCards, type CardWish } from "./place-cards.ts";

const cards = (...wishes: [wish: number, height: number][]): CardWish[] =>
  wishes.map(([wish, height], i) => ({ id: `c${i}`, wish, height }));
const tops = (list: CardWish[], active: string | null = null): number[] => [
  ...placeCards(list, active).values(),
];

describe("margin cards", () => {
  test("stand at their lines when there is room", () => {
    expect(tops(cards([0, 50], [100, 50], [300, 50]))).toEqual([0, 100, 300]);
  });

  test("make room for each other downwards", () => {
    expect(tops(cards([10, 50], [20, 50], [30, 50], [400, 50]))).toEqual([10, 66, 122, 400]);
  });

  test("the active one stands at its line, those before it move up", () => {
    expect(tops(cards([100, 50], [110, 50], [160, 50], [170, 50]), "c2")).toEqual([48, 104, 160, 216]);
  });

  test("none is pushed off the top, even for the active one", () => {
    expect(tops(cards([0, 50], [0, 50], [20, 50]), "c2")).toEqual([0, 56, 112]);
  });

  test("none ever overlap, wherever they want to be", () => {
    let seed = 3;
    const random = (below: number): number => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) % below;
    for (let round = 0; round < 500; round++) {
      const list = Array.from({ length: 1 + random(30) }, (_, i) => ({
        id: `c${i}`,
        wish: random(600),
        height: 20 + random(200),
      }));
      list.sort((a, b) => a.wish - b.wish);
      const placed = tops(list, random(2) ? list[random(list.length)]!.id : null);
      expect(placed[0]).toBeGreaterThanOrEqual(0);
      for (let i = 1; i < list.length; i++)
        expect(placed[i]).toBeGreaterThanOrEqual(placed[i - 1]! + list[i - 1]!.height);
    }
  });
});
