import { expect, test } from "@jest/globals";
import { typesetLanguage } from "./typeset-language.ts";

// Tags of RFC 5646, appendix A (from memory).
test.each([
  ["en", "en", null],
  ["en-GB", "en", "GB"],
  ["zh-Hant", "zh", null],
  ["sr-Latn-RS", "sr", "RS"],
  ["es-419", "es", null],
  ["de-CH-1901", "de", "CH"],
  ["sl-rozaj-biske", "sl", null],
  ["zh-yue-HK", "zh", "HK"],
  ["en-a-bb-x-gb", "en", null],
  ["de-ch", "de", "CH"],
])("%s is %s of %s", (tag, lang, region) => {
  expect(typesetLanguage(tag)).toEqual({ lang, region });
});
