import { expect, test } from "@jest/globals";
import { asSet } from "./comparable.ts";
import { foldBlanks } from "./exported-link.ts";
import { lettersOf } from "./letters.ts";

const signs = Array.from({ length: 0x80 }, (_, code) => String.fromCharCode(code));

test("the letters, and the words as they are set, of each sign of ASCII are what Unicode says of it", () => {
  for (const sign of signs) {
    const text = `a${sign}B`;
    expect(lettersOf(text)).toBe(text.replace(/[^\p{L}\p{N}\p{S}]/gu, "").toLowerCase());
    expect(asSet(text)).toBe(text.replace(/[\s\p{Default_Ignorable_Code_Point}-]/gu, ""));
  }
});

test("a text beyond ASCII is looked at sign by sign", () => {
  expect(lettersOf("√Ébb: ﬁve ①")).toBe("ébbfive1");
  expect(asSet("sand\u00adbank\u2011s  é")).toBe("sandbanksé");
});

test("blanks are folded wherever they are", () => {
  for (const [given, folded] of [
    ["low water", "low water"],
    [" low water", "low water"],
    ["low water\n", "low water"],
    ["low  water", "low water"],
    ["low\twater", "low water"],
    ["low\u00a0water", "low water"],
    ["low \u2028 water", "low water"],
    ["", ""],
    [" ", ""],
  ])
    expect(foldBlanks(given!)).toBe(folded);
});
