import { isPlainlyAnAddress } from "./recognise.ts";

/**
 * What may be an address in running text: signs without blanks, pictures and breaks, of which those that no address has
 * (RFC 3986, 2 and appendix C), quotes, and the punctuation of scripts that write no blank behind it end one.
 */
export const addressRuns = /[^\s\ufffc<>"`“”„«»‹›「」『』（）【】《》〈〉〔〕。、，；：！？…،؛؟।॥]+/gu;

/** Letters of scripts that write no blanks between words. */
const unspaced =
  "[\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}\\p{Script=Thai}\\p{Script=Lao}\\p{Script=Khmer}\\p{Script=Myanmar}ー]";

/**
 * Words of such a script before an address; behind its domain, of which no ending mixes scripts; and behind Latin letters of its
 * path, of which few names do. What begins behind a slash is the address's, but for a sign that begins no word.
 */
const beside: RegExp[] = [
  new RegExp(`^().*?${unspaced}(?=https?:\\/\\/|www\\.)`, "iu"),
  new RegExp(`^()[^@:]*${unspaced}(?=[\\w.+-]+@)`, "u"),
  new RegExp(`^((?:[^@]*@|https?:\\/\\/|www\\.)[^@/?#]*?\\.[a-z]{2,}(?::\\d+)?)${unspaced}.*$`, "isu"),
  new RegExp(`^((?:https?:\\/\\/|www\\.)[^/]*\\/(?:.*?[a-z\\d](?=${unspaced})|(?:.*?\\/)?(?=を))).*$`, "isu"),
];

/**
 * The address that stands in a word of running text, one of `addressRuns`, without the brackets, full stops and, in scripts
 * without blanks, words around it; null where it is not plainly one.
 */
export function addressInWord(word: string): string | null {
  let text = beside.reduce((left, pattern) => left.replace(pattern, "$1"), word);
  text = text.replace(/^[([{'‘]+/, "");
  for (let before = ""; before !== text;) {
    before = text;
    text = text.replace(/[}'’.,;:!?]+$/, "");
    // A bracket at the end belongs to the address where its partner is inside.
    if (/[)\]]$/.test(text) && !/[([][^)\]]*[)\]]$/.test(text)) text = text.slice(0, -1);
  }
  return isPlainlyAnAddress(text) ? text : null;
}
