import type { Node } from "prosemirror-model";
import { asSet } from "./comparable.ts";
import { nodesBetween } from "../manuscript/positions.ts";

/** The words of a stretch of text around its formulas; null where it has none. */
export function wordsAroundFormulas(doc: Node, from: number, to: number): string | null {
  let words = "";
  let formulas = 0;
  nodesBetween(doc, from, to, (node, position) => {
    if (node.type.name === "formula") formulas++;
    else if (node.isText) words += node.text!.slice(Math.max(0, from - position), to - position);
  });
  return formulas > 0 ? words : null;
}

/**
 * Whether words that were set in a page are those of a text with formulas. What stands above, below and before in a
 * formula has no place in a row, so the letters and signs are compared in any order, while the words around formulas come
 * in theirs.
 */
export function isSetFrom(text: string, aroundFormulas: string, found: string): boolean {
  const set = unadorned(found);
  return inAnyOrder(set) === inAnyOrder(unadorned(text)) && isWithin(unadorned(aroundFormulas), set);
}

/** Words as a page has them, without what a formula's setting draws by itself or instead of the letter: roots, accents, arrows, braces. */
function unadorned(text: string): string {
  return asSet(text).replace(/[\p{Mn}√→←↔^~`‾⏞⏟⎴⎵⏜⏝]/gu, "");
}

function inAnyOrder(letters: string): string {
  return [...letters].sort().join("");
}

/** Whether letters come one after the other among others. */
function isWithin(letters: string, others: string): boolean {
  let at = 0;
  for (const letter of letters) {
    at = others.indexOf(letter, at);
    if (at === -1) return false;
    at += letter.length;
  }
  return true;
}
