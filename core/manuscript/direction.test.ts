import { expect, test } from "@jest/globals";
import bidiFactory from "bidi-js";
import { languageDirection, textDirection } from "./direction.ts";

// Common practice: the languages of most books that are written from right to left, with regions and scripts.
test.each([
  "ar",
  "fa",
  "he",
  "ur",
  "ps",
  "dv",
  "ckb",
  "sd",
  "yi",
  "ug",
  "ar-EG",
  "az-Arab",
  "pa-PK",
  "ku-Arab-IQ",
  "uz-AF",
])("%s is written from right to left", (tag) => expect(languageDirection(tag)).toBe("rtl"));
test.each([
  "en",
  "zh-Hant-TW",
  "sr-Latn-RS",
  "de-CH-1996",
  "es-419",
  "az",
  "pa",
  "ks-Deva",
  "",
  "not a tag",
  "x-private",
])("%s is written from left to right", (tag) => expect(languageDirection(tag)).toBe("ltr"));

test.each([
  ["Walk at low tide.", "ltr", "ltr"],
  ["Walk at low tide.", "rtl", "ltr"],
  ["השביל פתוח", "ltr", "rtl"],
  ["12 – 34", "rtl", "rtl"],
  ["", "rtl", "rtl"],
  // A foreign name at the beginning.
  ["Hesterley Tides راه در هنگام جزر باز است، پیش از رفتن بپرسید", "rtl", "rtl"],
  ["שלום means peace, says the keeper", "ltr", "ltr"],
  ["שביל הגאות של Hesterley", "ltr", "rtl"],
] as const)("“%s” in a book %s goes %s", (text, book, direction) => {
  expect(textDirection(text, book)).toBe(direction);
});

test("strong letters are those of Unicode’s own classes (UAX 9, table 4), as bidi-js has them", () => {
  const { getBidiCharTypeName } = (
    bidiFactory as unknown as () => { getBidiCharTypeName: (letter: string) => string }
  )();
  for (let code = 0x41; code < 0x1ec00; code++) {
    const letter = String.fromCodePoint(code);
    if (!/\p{L}/u.test(letter)) continue;
    const type = getBidiCharTypeName(letter);
    if (type !== "L" && type !== "R" && type !== "AL") continue;
    expect([code, textDirection(letter, type === "L" ? "rtl" : "ltr")]).toEqual([
      code,
      type === "L" ? "ltr" : "rtl",
    ]);
  }
});
