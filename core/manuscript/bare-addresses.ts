import { addressInWord, addressRuns } from "../destination/addresses-in-text.ts";
import type { Node } from "prosemirror-model";
import { findPattern, type Mention } from "./mentions.ts";
import { schema } from "./schema.ts";
import { nodesBetween } from "./positions.ts";

/**
 * Every address of a chapter that stands in its text and that no link covers. Those in code are left out, and those that
 * are meant to stay plain, as one whose link was removed.
 */
export function findBareAddresses(doc: Node): Mention[] {
  // No address is without a full stop in it.
  const address = (word: string): string | null =>
    /\.[\p{L}\p{N}]/u.test(word) ? addressInWord(word) : null;
  const { code, plain } = schema.marks;
  const staysPlain = ({ from, to }: Mention): boolean => {
    let isMarked = false;
    nodesBetween(doc, from, to, ({ marks }) => {
      isMarked ||= marks.some(({ type }) => type === code || type === plain);
    });
    return isMarked;
  };
  return findPattern(doc, addressRuns, address).filter((found) => found.link === null && !staysPlain(found));
}
