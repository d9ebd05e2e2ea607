import { expect, test } from "@jest/globals";
import { bookWords } from "./book-words.ts";
import { guessLanguage } from "./language.ts";

test.each([
  ["de-AT", "Inhalt"],
  ["fa-IR", "فهرست"],
  ["zh-CN", "目录"],
  ["zh-Hant-TW", "目錄"],
  ["zh-HK", "目錄"],
  ["ja", "目次"],
  ["sw", "Contents"],
])("the contents of a book in %s are headed “%s”", (tag, contents) => {
  expect(bookWords(tag).contents).toBe(contents);
});

test.each(["ar", "el", "fa", "he", "ja", "ko", "ru", "zh"])("all words for %s are in its letters", (tag) => {
  const words = Object.values(bookWords(tag));
  expect(words).toHaveLength(18);
  expect(guessLanguage(words.join(" "))).toBe(tag);
  for (const word of words) expect(word).not.toMatch(/[A-Za-z]/);
});
