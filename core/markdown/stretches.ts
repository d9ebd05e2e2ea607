/** How long a stretch is, in UTF-16 units: short enough that what a parser notes of it takes little memory. */
export const stretchLength = 64 * 1024;

/**
 * Cuts a text in Markdown before lines at which, as a rule, all blocks before have ended: after an empty line, with a
 * letter, a heading's sign or a bracket at their very beginning (CommonMark 0.31, 5: such a line goes on with no list,
 * quote or note). Only a fence or HTML may be open there: whoever parses a stretch has to look whether it was closed.
 */
export function stretchesOf(text: string, length = stretchLength): string[] {
  const stretches: string[] = [];
  let from = 0;
  for (const { 0: found, index } of text.matchAll(/\n[ \t]*\r?\n(?=[#\p{L}[])/gu)) {
    const at = index + found.length;
    if (at - from < length) continue;
    stretches.push(text.slice(from, at));
    from = at;
  }
  return [...stretches, text.slice(from)];
}

/**
 * Reads stretch after stretch; one at whose end something is open goes on in the next, and so on, twice as far each time.
 * @param read gives null where something is open at the end of a stretch, unless that is the text’s
 */
export function readInStretches<T>(
  stretches: readonly string[],
  read: (stretch: string, isLast: boolean) => T | null,
): T[] {
  const all: T[] = [];
  for (let from = 0, count = 1; from < stretches.length;) {
    const to = Math.min(from + count, stretches.length);
    const one = read(stretches.slice(from, to).join(""), to === stretches.length);
    if (one === null) count *= 2;
    else {
      all.push(one);
      [from, count] = [to, 1];
    }
  }
  return all;
}

/** What may be the definition of a label. */
export interface MaybeDefinition {
  /** The label as labels are compared; that of a note with its sign. */
  name: string;
  label: string;
  /** Where its bracket opens. */
  at: number;
}

/** All that looks like the definition of a label in a text, in its order (CommonMark 0.31, 4.7). */
export function definitionsIn(text: string): MaybeDefinition[] {
  return [...text.matchAll(/^[ \t>*+\-\d.)]*\[((?:\\.|[^[\]\\]){1,999})\]:/gm)].map(
    ({ 0: whole, 1: label, index }) => ({
      name: comparedLabel(label!),
      label: label!,
      at: index + whole.lastIndexOf(`[${label!}]:`),
    }),
  );
}

/** The labels of all that stands in brackets in a text, as they are compared. */
export function labelsIn(text: string): Set<string> {
  return new Set(
    [...text.matchAll(/\[((?:\\.|[^[\]\\]){1,999})\]/g)].map(([, label]) => comparedLabel(label!)),
  );
}

/** A label as labels are compared: blanks folded, without regard to case (CommonMark 0.31, 6.3, “matches”). */
export function comparedLabel(label: string): string {
  return label
    .replace(/[\t\n\r ]+/g, " ")
    .trim()
    .toLowerCase()
    .toUpperCase()
    .toLowerCase();
}
