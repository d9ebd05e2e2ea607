import type { Book } from "../manuscript/book.ts";
import { bookOf } from "./sample-book.ts";

/** Formulas (MathML Core) whose letters no row has in the order in which they are written. */
const formulas = [
  "<mroot><mi>x</mi><mn>3</mn></mroot>",
  "<msqrt><mi>q</mi></msqrt>",
  "<munderover><mo>∑</mo><mrow><mi>i</mi><mo>=</mo><mn>1</mn></mrow><mi>n</mi></munderover><mi>i</mi>",
  "<msubsup><mi>x</mi><mi>i</mi><mn>2</mn></msubsup>",
  "<mmultiscripts><mi>X</mi><mn>1</mn><mn>2</mn><mprescripts/><mn>3</mn><mn>4</mn></mmultiscripts>",
  "<mo>{</mo><mtable><mtr><mtd><mi>a</mi></mtd><mtd><mi>b</mi></mtd></mtr><mtr><mtd><mi>c</mi></mtd><mtd><mi>d</mi></mtd></mtr></mtable>",
  "<mover><mi>x</mi><mo>→</mo></mover>",
  '<mover accent="true"><mi>y</mi><mo>^</mo></mover><mo>+</mo><mover accent="true"><mi>z</mi><mo>~</mo></mover>',
  "<munder><mi>lim</mi><mrow><mi>n</mi><mo>→</mo><mi>∞</mi></mrow></munder>",
  "<mfrac><msqrt><mi>a</mi><mo>+</mo><mi>b</mi></msqrt><mrow><mi>c</mi><mo>!</mo></mrow></mfrac>",
  "<mi>x</mi><mspace/><mi>y</mi><mtext> and </mtext><mo>&lt;</mo><mi>z</mi>",
];

const mathOf = (formula: string): string =>
  `<math xmlns="http://www.w3.org/1998/Math/MathML">${formula}</math>`;

/** A book with a link on words around each of them and on each alone, and a heading with one. */
export function bookOfFormulas(): Book {
  const written = formulas.map((formula, i) => {
    const math = mathOf(formula);
    return `Told [by&amp;lt;${math}of ${i}](https://tides.hesterley.example/${i}), [${math}](https://tides.hesterley.example/alone/${i}).`;
  });
  return bookOf(`# The height of the tide\n\n## Of ${mathOf(formulas[2]!)} alone\n\n${written.join("\n\n")}`);
}
