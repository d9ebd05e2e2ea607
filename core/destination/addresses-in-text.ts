import { unspacedLetter } from "../manuscript/unspaced-scripts.ts";
import { isPlainlyAnAddress } from "./recognise.ts";

/**
 * What may be an address in running text: signs without blanks, pictures and breaks, of which those that no address has
 * (RFC 3986, 2 and appendix C), quotes, and the punctuation of scripts that write no blank behind it end one.
 */
export const addressRuns = /[^\s\ufffc<>"`“”„«»‹›「」『』（）【】《》〈〉〔〕。、，；：！？…،؛؟।॥]+/gu;

const isUnspaced = new RegExp(unspacedLetter, "u");

/**
 * Words of a script without blanks before an address; behind its domain, of which no ending mixes scripts; and behind Latin letters of its
 * path, of which few names do. What begins behind a slash is the address's, but for a sign that begins no word. What
 * is left of a word is the first group.
 */
const beside: RegExp[] = [
  new RegExp(`^().*?${unspacedLetter}(?=https?:\\/\\/|www\\.)`, "iu"),
  new RegExp(`^()[^@:]*${unspacedLetter}(?=[\\w.+-]+@)`, "u"),
  new RegExp(`^((?:[^@]*@|https?:\\/\\/|www\\.)[^@/?#]*?\\.[a-z]{2,}(?::\\d+)?)${unspacedLetter}.*$`, "isu"),
  new RegExp(
    `^((?:https?:\\/\\/|www\\.)[^/]*\\/(?:.*?[a-z\\d](?=${unspacedLetter})|(?:.*?\\/)?(?=を))).*$`,
    "isu",
  ),
];

/**
 * The address that stands in a word of running text, one of `addressRuns`, without the brackets, full stops and, in scripts
 * without blanks, words around it; null where it is not plainly one.
 */
export function addressInWord(word: string): string | null {
  let text = isUnspaced.test(word)
    ? beside.reduce((left, pattern) => left.replace(pattern, "$1"), word)
    : word;
  text = text.replace(/^[([{'‘]+/, "");
  for (let before = ""; before !== text;) {
    before = text;
    text = text.replace(/[}'’.,;:!?]+$/, "");
    // A bracket at the end belongs to the address where its partner is inside.
    if (/[)\]]$/.test(text) && !/[([][^)\]]*[)\]]$/.test(text)) text = text.slice(0, -1);
  }
  return isPlainlyAnAddress(text) ? text : null;
}
