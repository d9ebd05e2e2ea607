import type { Element } from "hast";
import type { WordMark } from "../../manuscript/word-marks.ts";

const byDeclaration: readonly (readonly [declaration: RegExp, mark: WordMark])[] = [
  [/(^|;)\s*font-weight\s*:\s*(bold(er)?|[6-9]\d\d)\b/i, "strong"],
  [/(^|;)\s*font-style\s*:\s*(italic|oblique)\b/i, "emphasis"],
  [/(^|;)\s*vertical-align\s*:\s*super\b/i, "superscript"],
  [/(^|;)\s*vertical-align\s*:\s*sub\b/i, "subscript"],
  [/(^|;)\s*text-decoration(-line)?\s*:[^;]*\bline-through\b/i, "strike"],
  [/(^|;)\s*text-decoration(-line)?\s*:[^;]*\bunderline\b/i, "underline"],
  [/(^|;)\s*font-variant(-caps)?\s*:[^;]*\bsmall-caps\b/i, "small_caps"],
];

const takenBack: readonly (readonly [declaration: RegExp, mark: WordMark])[] = [
  [/(^|;)\s*font-weight\s*:\s*(normal|lighter|[1-4]\d\d)\b/i, "strong"],
  [/(^|;)\s*font-style\s*:\s*normal\b/i, "emphasis"],
  [/(^|;)\s*font-variant(-caps)?\s*:\s*normal\b/i, "small_caps"],
];

/** The marks of the words around an element that its own have not, by its style. */
export function marksTakenBack({ properties: { style } }: Element): WordMark[] {
  if (typeof style !== "string") return [];
  return takenBack.flatMap(([declaration, mark]) => (declaration.test(style) ? [mark] : []));
}

/** The marks that all words of a paragraph have by its style. */
export function marksOfParagraph(element: Element): WordMark[] {
  return marksOfStyle(element).filter((mark) => /^(strong|emphasis|small_caps)$/.test(mark));
}

/** The marks for words that an element shows by a style of its own, or by a class that says so. */
export function marksOfStyle({ tagName, properties }: Element): WordMark[] {
  const { style, className } = properties;
  const marks =
    typeof style === "string"
      ? byDeclaration.flatMap(([declaration, mark]) => (declaration.test(style) ? [mark] : []))
      : [];
  const classes = Array.isArray(className) ? className : String(className ?? "").split(" ");
  if (tagName === "span" && classes.some((name) => /^small-?caps$/i.test(String(name))))
    marks.push("small_caps");
  return marks;
}
