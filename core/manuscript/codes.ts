import { literalPattern } from "./literal-pattern.ts";

/** A file or document that a code may stand for. */
export interface CodeCandidate {
  id: string;
  name: string;
}

/** How sure a match of a code with a file's name is. */
export type MatchQuality = "exact" | "word" | "number" | "none";

export interface CodeMatch {
  code: string;
  file: CodeCandidate | null;
  quality: MatchQuality;
  /** Other files that match as well; then none of them is sure. */
  others: CodeCandidate[];
}

/**
 * Makes a pattern from examples of item codes: what all examples share stays to the letter, runs of digits
 * stand for any number, and other parts that differ for any letters. `R3` and `R12` give `R\d+`.
 * @returns the source of a regular expression, or null where the examples are of different build
 */
export function patternFromExamples(examples: string[]): string | null {
  const cut = examples
    .map((example) => example.trim().match(/\d+|\p{L}+|[^\p{L}\d]+/gu) ?? [])
    .filter((parts) => parts.length > 0);
  const [first] = cut;
  if (!first || cut.some((parts) => parts.length !== first.length)) return null;
  const pieces = first.map((piece, i) => {
    const all = cut.map((parts) => parts[i]!);
    if (all.every((part) => /^\d+$/.test(part))) return "\\d+";
    if (all.every((part) => part === piece)) return literalPattern(piece);
    return all.every((part) => /^\p{L}+$/u.test(part)) ? "\\p{L}+" : null;
  });
  return pieces.includes(null) ? null : pieces.join("");
}

/**
 * The codes that names of files begin with, those with the same letters together, the largest group first: `R1 plan.pdf`
 * and `R02.pdf` give R1 and R02. Letters are capitals, as codes in a text are (common practice).
 */
export function codesInNames(names: readonly string[]): string[][] {
  const groups = new Map<string, string[]>();
  for (const name of names) {
    const code = /^(\p{L}{1,6})[\s_.-]?(\d+)(?!\p{L})/u.exec(name);
    if (!code) continue;
    const letters = code[1]!.toUpperCase();
    const group = groups.get(letters);
    if (group) group.push(letters + code[2]!);
    else groups.set(letters, [letters + code[2]!]);
  }
  return [...groups.values()].sort((a, b) => b.length - a.length);
}

/**
 * The expression that finds a pattern's codes as words of their own.
 * @throws SyntaxError where the pattern is not a regular expression
 */
export function codeExpression(pattern: string): RegExp {
  return new RegExp(`(?<![\\p{L}\\p{N}_])(?:${pattern})(?![\\p{L}\\p{N}_])`, "gu");
}

/**
 * Puts to each distinct code the file whose name fits best: the name is the code (leading zeros, case and
 * ending aside), the code is a word of the name, or its number is the only number in the name.
 */
export function matchCodes(codes: string[], files: CodeCandidate[]): CodeMatch[] {
  const read = files.map((file) => ({ file, ...readName(file.name) }));
  return [...new Set(codes)].map((code): CodeMatch => {
    const wanted = fold(code);
    const number = code.match(/\d+/g)?.map(withoutZeros);
    const ranks: [MatchQuality, typeof read][] = [
      ["exact", read.filter(({ stem }) => stem === wanted)],
      ["word", read.filter(({ words }) => hasWords(words, wanted.split(" ")))],
      [
        "number",
        read.filter(
          ({ numbers }) => number?.length === 1 && numbers.length === 1 && numbers[0] === number[0],
        ),
      ],
    ];
    for (const [quality, found] of ranks) {
      const [best, ...others] = found.map(({ file }) => file);
      if (best) return { code, file: best, quality, others };
    }
    return { code, file: null, quality: "none", others: [] };
  });
}

/** The files that no match took. */
export function unusedFiles(matches: CodeMatch[], files: CodeCandidate[]): CodeCandidate[] {
  const used = new Set(matches.map(({ file }) => file?.id));
  return files.filter(({ id }) => !used.has(id));
}

function readName(name: string): { stem: string; words: string[]; numbers: string[] } {
  const stem = fold(name.replace(/\.[^.]*$/, ""));
  return { stem, words: stem.split(" "), numbers: stem.match(/\d+/g) ?? [] };
}

/** Words and numbers divided by single blanks, lower case, numbers without leading zeros: `R_03` is `r 3`. */
function fold(text: string): string {
  return (text.toLowerCase().match(/\d+|\p{L}+/gu) ?? []).map(withoutZeros).join(" ");
}

function withoutZeros(part: string): string {
  return part.replace(/^0+(?=\d)/, "");
}

function hasWords(words: string[], wanted: string[]): boolean {
  return words.some((_, i) => wanted.every((word, j) => words[i + j] === word));
}
