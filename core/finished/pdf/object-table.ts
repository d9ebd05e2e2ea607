import { PdfError } from "../../pdf/errors.ts";
import { PdfParser } from "../../pdf/pdf-parser.ts";
import { PdfName, type PdfDict, type PdfValue } from "../../pdf/pdf-values.ts";

/**
 * Whether the tables by which readers find the objects of a PDF lead to them (ISO 32000-1, 7.5.4 and 7.5.8). Where they do
 * not, readers’ programs search the whole file, and what is appended to it has to bring a table of all objects.
 */
export function hasSoundTable(bytes: Uint8Array): boolean {
  const text = new TextDecoder("latin1").decode(bytes.subarray(headerAt(bytes)));
  const last = /startxref\s+(\d+)\s+%%EOF[^]*$/.exec(text.slice(-looked));
  if (!last) return false;
  try {
    return tablesAreSound(text, Number(last[1]));
  } catch (error) {
    if (error instanceof PdfError) return false;
    throw error;
  }
}

/**
 * Where the header of a PDF begins, from which all offsets in it are counted; what stands before it readers pass over
 * (common practice).
 */
export function headerAt(bytes: Uint8Array): number {
  return Math.max(0, new TextDecoder("latin1").decode(bytes.subarray(0, looked)).indexOf("%PDF-"));
}

/** As much of a file’s beginning and end is looked through by readers’ programs (common practice). */
const looked = 1024;

function tablesAreSound(text: string, start: number): boolean {
  const seen = new Set<number>();
  const open = [start];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    if (seen.has(at)) continue;
    seen.add(at);
    const parser = new PdfParser(text, at);
    const isOld = parser.takes("xref");
    const trailer = isOld ? trailerBehind(parser, text) : streamAt(parser);
    if (!(trailer instanceof Map)) return false;
    for (const name of ["Prev", "XRefStm"]) {
      const next = trailer.get(name);
      if (typeof next === "number") open.push(next);
    }
  }
  return true;
}

/** Goes over a table, and gives the trailer behind it; null where an entry leads to no object of its number. */
function trailerBehind(parser: PdfParser, text: string): PdfValue {
  while (!parser.takes("trailer")) {
    const before = parser.at;
    const first = parser.integer();
    const count = parser.integer();
    if (!(count >= 0) || !(first >= 0) || parser.at === before) return null;
    for (let number = first; number < first + count; number++) {
      const [offset, generation] = [parser.integer(), parser.integer()];
      if (parser.takes("f")) continue;
      if (!parser.takes("n")) return null;
      // Some programs say so of numbers that they do not use.
      if (offset === 0) continue;
      const there = new PdfParser(text, offset);
      if (there.integer() !== number || there.integer() !== generation || !there.takes("obj")) return null;
    }
  }
  return parser.value();
}

/** The dictionary of a table that is a stream; null where none stands there. */
function streamAt(parser: PdfParser): PdfDict | null {
  parser.integer();
  parser.integer();
  if (!parser.takes("obj")) return null;
  const dictionary = parser.value();
  const type = dictionary instanceof Map ? dictionary.get("Type") : null;
  return dictionary instanceof Map && type instanceof PdfName && type.name === "XRef" ? dictionary : null;
}
