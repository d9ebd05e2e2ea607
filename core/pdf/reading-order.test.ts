import { expect, test } from "@jest/globals";
import { inReadingOrder, type ShownLetters } from "./reading-order.ts";

const at = (words: string, x: number, more: Partial<ShownLetters> = {}): ShownLetters => ({
  words,
  x,
  y: 100,
  height: 10,
  isRightToLeft: /\p{Script=Hebrew}|\p{Script=Thaana}/u.test(words),
  endsLine: false,
  content: "one",
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

test("signs between words from right to left, or of their content, go along with them; others stay", () => {
  expect(read(at("לטוב", 10), at("/", 40), at("שלום", 44), at("-", 70))).toBe("-שלום/לטוב");
  const [other, third] = [{ content: "other" }, { content: "third" }];
  expect(read(at("לטוב", 10), at("-", 40, other), at("שלום", 44, third))).toBe("שלום-לטוב");
  expect(read(at("see (", 0, other), at("שלום", 30), at(")", 60, other))).toBe("see (שלום)");
});

test("of letters that begin at one point the last is read first", () => {
  expect(read(at("ה", 10), at("שלו", 10))).toBe("שלוה");
});

test("a mark before its letter is turned back", () => {
  expect(read(at("ުގ", 10))).toBe("ގު");
});
