import type { Book } from "../../../manuscript/book.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import type { MathElement } from "../../../manuscript/math.ts";
import { scriptName, scriptOf } from "../../../manuscript/scripts.ts";
import type { ForeseenChange } from "../../export-warning.ts";
import { ownFonts } from "../../own-fonts.ts";
import { codeFamilies, familiesOfBook, familyOf, type Shapes } from "./script-fonts.ts";

const around = 24;

/** What stands in a PDF for a letter that no font has. */
export const standInLetter = "\u25a1";

/** The letters of a book that cannot be set, each with what stands in its place, and what is to be told of them. */
export interface MissingLetters {
  letters: ReadonlyMap<string, string>;
  changes: ForeseenChange[];
}

/**
 * The letters of a book, with the marks on them, that no family has shapes for: each is told once a chapter, with how
 * often it stands there and where first, those of one script after each other.
 */
export function findMissingLetters(
  book: Pick<Book, "title" | "author" | "chapters" | "language" | "fonts" | "fontFaces">,
  shapes: Shapes,
): MissingLetters {
  const families = familiesOfBook(ownFonts(book, "pdf").fonts).text;
  const letters = new Map<string, string | null>();
  const found: {
    script: string;
    chapter: string | null;
    letter: string;
    near: string;
    times: number;
    at: ForeseenChange["at"];
  }[] = [];
  const standIn = (letter: string): string | null => {
    let known = letters.get(letter);
    if (known === undefined)
      letters.set(letter, (known = standInFor(letter, { language: book.language, families, shapes })));
    return known;
  };
  const look = (texts: Iterable<TextAt>, title: string | null, chapter: number): void => {
    const here = new Map<string, (typeof found)[number]>();
    for (const { text, from, isWhole = false } of texts) {
      for (const { 0: letter, index } of text.matchAll(markedLetter)) {
        if (standIn(letter) === null) continue;
        const before = here.get(letter);
        if (before) {
          before.times++;
          continue;
        }
        const near = text
          .slice(Math.max(0, index - around), index + letter.length + around)
          .replace(halves, "")
          .trim();
        const [start, length] = isWhole ? [0, 1] : [index, letter.length];
        const at = from === null ? null : { chapter, from: from + start, to: from + start + length };
        here.set(letter, { script: scriptOf(letter) ?? "", chapter: title, letter, near, times: 1, at });
      }
    }
    found.push(...here.values());
  };
  look(
    [book.title, book.author].map((text) => ({ text, from: null })),
    null,
    -1,
  );
  book.chapters.forEach(({ doc }, i) => look(textsOf(doc), chapterTitle(doc), i));
  return {
    letters: new Map([...letters].filter((one): one is [string, string] => one[1] !== null)),
    changes: found
      .sort((a, b) => (a.script < b.script ? -1 : a.script > b.script ? 1 : 0))
      .map(({ script, chapter, letter, near, times, at }) => ({
        code: "letter",
        chapter,
        at,
        message: `${script ? `${scriptName(script)}: no` : "No"} font of the PDF has a shape for “${letter}” (${codesOf(letter)}), ${times === 1 ? "once" : `${times} times`}, near “${near}”; ${standInLetter} stands in its place.`,
      })),
  };
}

/** Control characters, and letters that are beyond ASCII or marked, with the marks on them. */
export const markedLetter = /[\0-\x08\x0b-\x1f\x7f]|[^\0-\x7f]\p{M}*|[\0-\x7f]\p{M}+/gu;

/** What cutting a text may leave of a letter beyond the first plane. */
const halves = /^[\udc00-\udfff]|[\ud800-\udbff]$/g;

/** A text, and where it stands in its document; null where it is no words of it. */
interface TextAt {
  text: string;
  from: number | null;
  /** Whether it is one thing there, however many its letters. */
  isWhole?: boolean;
}

/** The texts of a chapter that are set: those of its blocks, of its formulas, and the headings of its signpost lists. */
export function textsOf(doc: Book["chapters"][number]["doc"]): TextAt[] {
  const texts: TextAt[] = [];
  doc.descendants((node, position) => {
    // What stands in words is as long as one letter.
    if (node.isTextblock)
      texts.push({ text: node.textBetween(0, node.content.size, "\n", " "), from: position + 1 });
    if (node.type.name === "formula") texts.push(...textsOfMath(node.attrs["math"] as MathElement, position));
    const heading = node.attrs["heading"] as unknown;
    if (typeof heading === "string") texts.push({ text: heading, from: null });
  });
  return texts;
}

/** The letters and signs of a formula, all of which stand where it does. */
function textsOfMath({ children }: MathElement, position: number): TextAt[] {
  return children.flatMap((child) =>
    typeof child === "string"
      ? [{ text: child, from: position, isWhole: true }]
      : textsOfMath(child, position),
  );
}

/** A text with what stands in place of its missing letters. */
export function withStandIns(text: string, letters: MissingLetters["letters"]): string {
  if (letters.size === 0) return text;
  return text.replace(markedLetter, (letter) => letters.get(letter) ?? letter);
}

/** By what letters are set. */
interface SettingOfLetters {
  language: string;
  families: readonly string[];
  shapes: Shapes;
}

/** What stands in place of a letter; null where it can be set: where one family has it with all its marks, or it has no shape. */
function standInFor(letter: string, setting: SettingOfLetters): string | null {
  if (isShown(letter, setting)) return null;
  // Marks that its family does not have are left out, and the letter stays.
  const [bare] = [...letter] as [string];
  return bare !== letter && isShown(bare, setting) ? bare : standInLetter;
}

function isShown(letter: string, { language, families: ofText, shapes }: SettingOfLetters): boolean {
  const script = scriptOf(letter);
  const families = script === null ? ofText : [familyOf(script, language), ...ofText];
  return [letter, letter.normalize("NFC")].some((spelled) => {
    const codes = [...spelled].filter((one) => !isShapeless(one)).map((one) => one.codePointAt(0)!);
    const hasAll = (family: string): boolean => codes.every((code) => shapes.has(family, code));
    return families.some(hasAll) || codeFamilies.slice(0, 1).some(hasAll);
  });
}

/**
 * Blanks, joiners and what is not shown (Default_Ignorable_Code_Point) have no shape of their own; but for the Mongolian
 * variation selector of Unicode 14, which the typesetter does not know yet as such.
 */
function isShapeless(letter: string): boolean {
  return /^(?!\u180f)[\p{Zs}\p{Default_Ignorable_Code_Point}\n\t]$/u.test(letter);
}

function codesOf(letter: string): string {
  return [...letter]
    .map((one) => `U+${one.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0")}`)
    .join(" ");
}
