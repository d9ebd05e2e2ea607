import type { Node } from "prosemirror-model";
import { isSeen } from "../manuscript/seen-words.ts";
import type { LinkUse } from "../manuscript/links.ts";
import type { ChapterRule } from "./finding.ts";
import { resolved } from "../manuscript/positions.ts";

/**
 * What is enough to read: two letters or digits, one digit, one sign of a script in which it is a word, or a capital, by
 * itself or with a sign behind it, as entries of an index, grades and languages for programs are called; or a letter behind
 * a hyphen, as what is set of a program is.
 */
const isEnough =
  /[\p{L}\p{N}].*?[\p{L}\p{N}]|\p{N}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]|^\p{Lu}[#+*]*$|^-\p{L}$/su;

/** In so short a paragraph a letter at its start is the entry of a list: what is called “d” cannot be called otherwise. */
const entryWords = 4;

/** A link on punctuation or one letter alone. */
export const thinWords: ChapterRule = {
  id: "thin-words",
  title: "The words are a sign or a single letter",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4 and 2.5.8: such a link is hard to understand and to hit",
  findInChapter: (doc, links) =>
    links
      .filter((link) => link.on === "words" && isThin(link.text.trim()) && !isEntry(doc, link))
      .map(({ id, text }) => ({
        subject: id,
        message: `“${text.trim()}” is too little to read or to hit. Link more words.`,
      })),
};

function isThin(words: string): boolean {
  return !isEnough.test(words) && isSeen(words);
}

function isEntry(doc: Node, { text, from }: LinkUse): boolean {
  const { parent, offset } = resolved(doc, from);
  if (offset !== 0 || !/^\p{L}$/u.test(text.trim())) return false;
  return parent.textContent.trim().split(/\s+/).length <= entryWords;
}
