import { expect, test } from "@jest/globals";
import { bookInLanguage, sentenceLanguages } from "../test/book-in-languages.ts";
import { guessLanguage, languageTag } from "./language.ts";

// RFC 5646, appendix A (from memory), and what it says is not well-formed.
test.each([
  ["en-gb", "en-GB"],
  ["zh-hant-tw", "zh-Hant-TW"],
  ["sr-Latn-RS", "sr-Latn-RS"],
  ["de-CH-1996", "de-CH-1996"],
  ["es-419", "es-419"],
  ["de_AT", "de-AT"],
  [" fr ", "fr"],
  ["german", null],
  ["de-419-DE", null],
  ["a-DE", null],
  ["x-private", null],
  ["", null],
  [`en-${"a".repeat(40)}`, null],
])("“%s” is the tag %s", (given, tag) => expect(languageTag(given)).toBe(tag));

test.each(sentenceLanguages)("letters tell %s, as far as they can", (language) => {
  const text = bookInLanguage(language)
    .chapters.map(({ doc }) => doc.textContent)
    .join(" ");
  const guessed = guessLanguage(text);
  if (language === "de") expect(guessed).toBeNull();
  else expect(guessed).toBe(language.split("-")[0]);
});

test("a name or two in another script tell nothing", () => {
  expect(
    guessLanguage("The oldest ford is called שביל הגאות by its keepers, who know every stone of it."),
  ).toBeNull();
  expect(guessLanguage("Hesterley 潮水退去时石头露出来 apt-get install 然后")).toBe("zh");
  expect(guessLanguage("The sign 潮 means tide, and 退潮 means that the water goes.")).toBeNull();
  expect(guessLanguage("Набережная відкрита, її стежка є довгою, а ґанок стоїть")).toBe("uk");
  expect(guessLanguage("راستہ کھلا ہے، ٹھہریں اور پڑھیں")).toBe("ur");
});
