import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFString,
  type PDFObject,
  type PDFPage,
} from "@cantoo/pdf-lib";
import { FinishedError } from "../errors.ts";

/** What the library throws at objects that are not what they have to be. */
export function damaged(error: unknown): FinishedError {
  if (error instanceof FinishedError) return error;
  const why = (error as Error).message.replace(/\.+$/, "");
  return new FinishedError(
    "format",
    `This PDF is damaged, and its links cannot be read: ${why}. Open it in the program that made it, save it anew, and bring it again.`,
  );
}

/** The list of a page’s annotations; undefined where it has none. */
export function annotsOf(page: PDFPage): PDFArray | undefined {
  const list = entry(page.node, "Annots");
  return list instanceof PDFArray ? list : undefined;
}

/** The annotations of a page, each with what it is called: its object, or its place among those of the page. */
export function annotationsOf(page: PDFPage): { from: string; dictionary: PDFDict; at: number }[] {
  const list = annotsOf(page);
  if (!list) return [];
  return Array.from({ length: list.size() }, (_, at) => {
    const entry = list.get(at);
    const found = list.lookup(at);
    const dictionary = found instanceof PDFDict ? found : null;
    const from = entry instanceof PDFRef ? `${entry.objectNumber} ${entry.generationNumber}` : `direct ${at}`;
    return dictionary ? [{ from, dictionary, at }] : [];
  }).flat();
}

/** A text of a PDF; null for anything else. */
export function textIn(value: PDFObject | undefined): string | null {
  return value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : null;
}

/** The numbers of an array; null where it has anything else. */
export function numbersIn(value: PDFObject | undefined): number[] | null {
  if (!(value instanceof PDFArray)) return null;
  const all = value.asArray().map((_, i) => value.lookup(i));
  return all.every((one) => one instanceof PDFNumber) ? all.map((one) => one.asNumber()) : null;
}

/** The value of a dictionary’s entry. */
export function entry(dictionary: PDFDict | undefined, name: string): PDFObject | undefined {
  return dictionary?.lookup(PDFName.of(name));
}

/** A dictionary within another; undefined where there is none. */
export function dictionaryIn(dictionary: PDFDict | undefined, name: string): PDFDict | undefined {
  const value = entry(dictionary, name);
  return value instanceof PDFDict ? value : undefined;
}

/** A dictionary in an array; undefined where something else stands there. */
export function dictionaryAt(array: PDFArray, at: number): PDFDict | undefined {
  const value = array.lookup(at);
  return value instanceof PDFDict ? value : undefined;
}

/** A name of a dictionary’s entry, without its slash. */
export function nameIn(dictionary: PDFDict | undefined, name: string): string | null {
  const value = entry(dictionary, name);
  return value instanceof PDFName ? value.decodeText() : null;
}
