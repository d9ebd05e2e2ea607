import { PdfParser } from "./pdf-parser.ts";
import type { PdfValue } from "./pdf-values.ts";

const operator = /[A-Za-z'"*][A-Za-z0-9'"*]*/y;
const number = /[+\-.\d][\d.]*/y;

/**
 * The operators of a page's content (ISO 32000-1, 7.8.2) in their order, each with its operands but numbers.
 * @param content one character a byte
 * @throws PdfError `syntax` where it is none
 */
export function* contentOperators(content: string): Iterable<{ name: string; operands: PdfValue[] }> {
  const parser = new PdfParser(content, 0);
  let operands: PdfValue[] = [];
  while (!parser.isAtEnd()) {
    number.lastIndex = operator.lastIndex = parser.at;
    if (number.test(content)) {
      parser.at = number.lastIndex;
      continue;
    }
    const name = operator.exec(content)?.[0];
    if (name === undefined) {
      operands.push(parser.value());
      continue;
    }
    parser.at = operator.lastIndex;
    yield { name, operands };
    operands = [];
  }
}
