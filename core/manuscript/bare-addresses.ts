import { addressInWord, addressRuns } from "../destination/addresses-in-text.ts";
import type { Node } from "prosemirror-model";
import { findPattern, type Mention } from "./mentions.ts";
import { schema } from "./schema.ts";

/**
 * Every address of a chapter that stands in its text and that no link covers. Those in code are left out, and those that
 * are meant to stay plain, as one whose link was removed.
 */
export function findBareAddresses(doc: Node): Mention[] {
  // No address is without a full stop in it.
  const address = (word: string): string | null =>
    /\.[\p{L}\p{N}]/u.test(word) ? addressInWord(word) : null;
  const { code, plain } = schema.marks;
  return findPattern(doc, addressRuns, address).filter(
    ({ from, to, link }) =>
      link === null && !doc.rangeHasMark(from, to, code!) && !doc.rangeHasMark(from, to, plain!),
  );
}
