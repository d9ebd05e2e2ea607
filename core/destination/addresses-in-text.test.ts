import { expect, test } from "@jest/globals";
import { addressInWord, addressRuns } from "./addresses-in-text.ts";

/** The addresses of a text, each with where it begins. */
function addressesOf(text: string): string[] {
  return [...text.matchAll(addressRuns)].flatMap(([run]) => addressInWord(run) ?? []);
}

test.each([
  ["See (https://tides.example/a_(b)).", ["https://tides.example/a_(b)"]],
  ["“www.tides.example”, the office", ["www.tides.example"]],
  ["‘https://tides.example/ebb’;", ["https://tides.example/ebb"]],
  ["Wardens<wardens@causeways.example>;", ["wardens@causeways.example"]],
  ["https://tides.example/a?b=1!", ["https://tides.example/a?b=1"]],
  ["tides.example", []],
  ["www.", []],
  ["(see", []],
  // What a markup leaves behind an address (RFC 3986, appendix C, on what delimits one in text).
  ["`Tides <https://tides.example/ebb>`_", ["https://tides.example/ebb"]],
  ["[https://tides.example/ebb]>`_", ["https://tides.example/ebb"]],
  ['href="https://tides.example/ebb">ebb</a>', ["https://tides.example/ebb"]],
  ["`https://tides.example/ebb`,", ["https://tides.example/ebb"]],
  // Scripts that write no blanks, in which punctuation ends an address, and a change of script a domain.
  ["潮汐表（https://tides.example/ebb）を見る。", ["https://tides.example/ebb"]],
  ["詳しくはhttps://tides.example/ebb。", ["https://tides.example/ebb"]],
  ["干潮https://a.example/、満潮https://b.example/", ["https://a.example/", "https://b.example/"]],
  ["メーリングリストです。wardens@causeways.exampleまで", ["wardens@causeways.example"]],
  ["連絡先wardens@causeways.example", ["wardens@causeways.example"]],
  ["www.tides.exampleをご覧ください", ["www.tides.example"]],
  ["https://tides.example:8080を", ["https://tides.example:8080"]],
  ["https://tides.example/wiki/干潮_(海)", ["https://tides.example/wiki/干潮_(海)"]],
  ["https://tides.example/ebbを見る", ["https://tides.example/ebb"]],
  ["https://tides.example/をご覧ください", ["https://tides.example/"]],
  ["https://干潮.example/", ["https://干潮.example/"]],
  ["ดูที่https://tides.example/ebb", ["https://tides.example/ebb"]],
  ["راجع https://tides.example/ebb، ثم", ["https://tides.example/ebb"]],
  // Letters of other scripts before one are part of the word.
  ["xhttps://tides.example/", []],
  ["git+https://tides.example/", []],
])("in %j the addresses are %j", (text, addresses) => {
  expect(addressesOf(text)).toEqual(addresses);
});
