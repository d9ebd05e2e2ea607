/**
 * A formula as a tree of presentation MathML (MathML Core): what it is made of, with the attributes that change what it
 * says. Text stands in `mi`, `mn`, `mo`, `mtext` and `ms` alone.
 */
export interface MathElement {
  name: MathName;
  attributes?: Readonly<Partial<Record<MathAttribute, string>>>;
  children: readonly (MathElement | string)[];
}

/** The elements of letters, figures and signs, which hold text. */
export const mathTokens = ["mi", "mn", "mo", "mtext", "ms"] as const;
/** The elements that hold others; a number says of how many parts they are. */
export const mathParts = {
  math: null,
  mrow: null,
  mstyle: null,
  mpadded: null,
  mphantom: null,
  merror: null,
  mfrac: 2,
  msqrt: null,
  mroot: 2,
  msub: 2,
  msup: 2,
  msubsup: 3,
  munder: 2,
  mover: 2,
  munderover: 3,
  mmultiscripts: null,
  mprescripts: 0,
  mspace: 0,
  mtable: null,
  mtr: null,
  mtd: null,
} as const;

/** The name of an element of a formula. */
export type MathName = (typeof mathTokens)[number] | keyof typeof mathParts;

/** The attributes that are kept: none of them leads anywhere or loads anything. */
export const mathAttributes = [
  "mathvariant",
  "stretchy",
  "accent",
  "accentunder",
  "linethickness",
  "columnalign",
  "width",
  "form",
  "lspace",
  "rspace",
  "largeop",
  "movablelimits",
  "displaystyle",
] as const;
type MathAttribute = (typeof mathAttributes)[number];

/** A formula is no deeper than this; its parts are no more than that. */
const deepest = 60;
const mostParts = 5_000;

/** Whether an element is one of letters, figures or signs. */
export function isMathToken(name: string): name is (typeof mathTokens)[number] {
  return (mathTokens as readonly string[]).includes(name);
}

/** Whether a formula has such an element. */
export function isMathName(name: string): name is MathName {
  return isMathToken(name) || Object.hasOwn(mathParts, name);
}

/**
 * Throws a RangeError for what is no formula: another element or attribute than the known, parts that are too few or too
 * many, text outside of letters and signs, one that is too deep or too large.
 */
export function assertMath(value: unknown): asserts value is MathElement {
  let parts = 0;
  const check = (element: unknown, depth: number): void => {
    const { name, attributes = {}, children } = (element ?? {}) as Partial<MathElement>;
    const isWhole = typeof attributes === "object" && attributes !== null && Array.isArray(children);
    if (typeof name !== "string" || !isMathName(name) || !isWhole)
      throw new RangeError("A formula is made of elements of MathML.");
    if (depth > deepest || ++parts > mostParts) throw new RangeError("A formula is too large.");
    for (const [key, said] of Object.entries(attributes))
      if (
        !(mathAttributes as readonly string[]).includes(key) ||
        typeof said !== "string" ||
        said.length > 100
      )
        throw new RangeError("A formula has an attribute that it cannot have.");
    if (isMathToken(name)) {
      if (!children.every((child) => typeof child === "string"))
        throw new RangeError("A letter or sign of a formula holds text alone.");
      return;
    }
    const wanted = mathParts[name];
    if (wanted !== null && children.length !== wanted)
      throw new RangeError(`“${name}” of a formula has ${wanted} parts.`);
    for (const child of children) check(child, depth + 1);
  };
  check(value, 0);
  if ((value as MathElement).name !== "math") throw new RangeError("A formula begins with “math”.");
}

/** A formula's letters and signs as they stand one after the other, which is what readers of text find of it. */
export function lettersOfMath({ children }: MathElement): string {
  return children.map((child) => (typeof child === "string" ? child : lettersOfMath(child))).join("");
}

/** A formula in a row, with signs for what stands above and below, for where it cannot be drawn. */
export function wordsOfMath({ name, children }: MathElement): string {
  if (name === "mspace") return " ";
  const words = children.map((child) => (typeof child === "string" ? child : wordsOfMath(child)));
  const [first = "", second = "", third = ""] = words;
  switch (name) {
    case "mfrac":
      return `${inBrackets(first)}/${inBrackets(second)}`;
    case "msqrt":
      return `√${inBrackets(words.join(""))}`;
    case "mroot":
      return `${second}√${inBrackets(first)}`;
    case "msup":
      return `${first}^${inBrackets(second)}`;
    case "msub":
      return `${first}_${inBrackets(second)}`;
    case "msubsup":
    case "munderover":
      return `${first}_${inBrackets(second)}^${inBrackets(third)}`;
    case "mtr":
      return words.join(" ");
    case "mtable":
      return words.join("; ");
    default:
      return words.join("");
  }
}

/** What is more than one letter or sign stands in brackets. */
function inBrackets(words: string): string {
  return [...words].length > 1 && !/^[\p{L}\p{N}.,]+$/u.test(words) ? `(${words})` : words;
}
