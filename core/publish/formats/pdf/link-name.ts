import { percentDecoded } from "../../../destination/percent-decoded.ts";

/** What a screen reader is told of a link without a description: its words, and to whom it leads. */
export function wordsAndHost(words: string, address: string): string {
  const host = /^https?:/.test(address)
    ? new URL(address).hostname
    : percentDecoded(address.replace(/^mailto:/, "").replace(/\?.*$/s, ""));
  if (words.includes(host)) return words;
  return words.trim() === "" ? host : `${words} (${host})`;
}
