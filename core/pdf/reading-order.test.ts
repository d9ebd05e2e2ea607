import { expect, test } from "@jest/globals";
import { inReadingOrder, type ShownLetters } from "./reading-order.ts";

const at = (words: string, x: number, more: Partial<ShownLetters> = {}): ShownLetters => ({
  words,
  x,
  y: 100,
  height: 10,
  isRightToLeft: /\p{Script=Hebrew}|\p{Script=Thaana}/u.test(words),
  endsLine: false,
  ...more,
});
const read = (...shown: ShownLetters[]): string =>
  inReadingOrder(shown)
    .map(({ words }) => words)
    .join("");

test("words written from right to left are read the other way than they stand, line by line", () => {
  expect(read(at("עולם", 10), at(" ", 40), at("שלום", 44), at("טוב", 20, { y: 80 }))).toBe("שלום עולםטוב");
});

test("numbers and words of other directions part them, and keep the order in which the file has them", () => {
  expect(read(at("בעמוד", 60), at("12", 40), at("ההליכה", 10))).toBe("בעמוד12ההליכה");
  expect(read(at("one ", 10), at("two", 40))).toBe("one two");
});

test("a letter that is there again for its raised mark is read once; a syllable said twice is read twice", () => {
  expect(read(at("កជំ", 10), at("ជំ", 24, { y: 99.5 }), at("នោ", 30))).toBe("កជំនោ");
  expect(read(at("ជំ", 10), at("ជំ", 14, { y: 99.5 }), at("ជំ", 20), at("ជំ", 24, { y: 99.5 }))).toBe("ជំជំ");
});

test("a mark before its letter is turned back", () => {
  expect(read(at("ުގ", 10))).toBe("ގު");
});
