import { languageTag } from "./language.ts";

// What the schema asks of attributes; each check throws a RangeError.

export function checkId(value: unknown): void {
  if (typeof value !== "string" || !/^[A-Za-z][\w-]{0,63}$/.test(value)) {
    throw new RangeError("An id begins with a letter and holds letters, digits, - and _.");
  }
}

export function checkAlign(value: unknown): void {
  if (value !== null && value !== "left" && value !== "center" && value !== "right")
    throw new RangeError("A cell is aligned left, center or right.");
}

export function checkLineAlign(value: unknown): void {
  if (value !== null && value !== "center" && value !== "end")
    throw new RangeError("A paragraph is aligned as the book is, center, or end.");
}

export function checkWidth(value: unknown): void {
  if (value !== null && !(typeof value === "number" && value >= 5 && value <= 100))
    throw new RangeError("A picture is between 5 and 100 percent of the text's width.");
}

export function oneOf(...allowed: string[]): (value: unknown) => void {
  return (value) => {
    if (!allowed.includes(value as string)) throw new RangeError(`It is one of: ${allowed.join(", ")}.`);
  };
}

export function checkDepth(value: unknown): void {
  if (!Number.isInteger(value) || (value as number) < 1 || (value as number) > 5)
    throw new RangeError("A signpost list is from 1 to 5 levels deep.");
}

export function checkAnchors(value: unknown): void {
  if (!Array.isArray(value)) throw new RangeError("Chosen anchors are a list of ids.");
  for (const id of value) checkId(id);
}

export function checkLevel(value: unknown): void {
  if (value !== 1 && value !== 2 && value !== 3 && value !== 4)
    throw new RangeError("A heading has a level from 1 to 4.");
}

export function checkFileId(value: unknown): void {
  if (value !== null && (typeof value !== "string" || !/^[\w-]{1,64}$/.test(value)))
    throw new RangeError("A picture's file is named by its id.");
}

export function checkSource(value: unknown): void {
  if (value !== null && typeof value !== "string") throw new RangeError("A picture's source is text.");
}

export function checkLanguage(value: unknown): void {
  if (value !== null && !isCodeLanguage(value)) throw new RangeError("A listing's language is one word.");
}

export function isCodeLanguage(value: unknown): value is string {
  return typeof value === "string" && /^[^\s\p{Cc}]{1,200}$/u.test(value);
}

export function checkLanguageTag(value: unknown): void {
  if (typeof value !== "string" || languageTag(value) === null)
    throw new RangeError("A language is a tag of BCP 47.");
}

export function checkStart(value: unknown): void {
  if (!Number.isSafeInteger(value)) throw new RangeError("A list begins with a whole number.");
}

/** @param most as WHATWG HTML, 4.9.11, has it: 1,000 columns, 65,534 rows */
export function checkSpan(most: number): (value: unknown) => void {
  return (value) => {
    if (!Number.isInteger(value) || (value as number) < 1 || (value as number) > most)
      throw new RangeError(`A cell goes over 1 to ${most} rows or columns.`);
  };
}

export function checkColumnWidths(value: unknown): void {
  const isList =
    Array.isArray(value) &&
    value.length <= 1_000 &&
    value.every((width) => Number.isInteger(width) && width >= 0);
  if (value !== null && !isList) throw new RangeError("Widths of columns are whole numbers.");
}
