import { multiplied, unchanged, type Matrix } from "./matrix.ts";

/** Left, lower, right and upper edge, in points of the page’s own coordinates. */
type Box = readonly [number, number, number, number];

/** What a page draws, as pdf.js lists it. */
export interface DrawnOperators {
  fnArray: readonly number[];
  argsArray: readonly unknown[];
}

/** The operators that matter here, by pdf.js’s numbers. */
type Operators = Readonly<
  Record<
    | "save"
    | "restore"
    | "transform"
    | "paintFormXObjectBegin"
    | "paintFormXObjectEnd"
    | "paintImageXObject"
    | "paintInlineImageXObject"
    | "constructPath",
    number
  >
>;

/**
 * The boxes in which a page draws pictures, each of which fills the square of its own coordinates (ISO 32000-1, 8.9.5), and
 * shapes.
 * @param ops `OPS` of pdf.js
 */
export function drawnBoxes(
  { fnArray, argsArray }: DrawnOperators,
  ops: Operators,
): { pictures: Box[]; shapes: Box[] } {
  const pictures: Box[] = [];
  const shapes: Box[] = [];
  const kept: Matrix[] = [];
  let matrix = unchanged;
  fnArray.forEach((operator, i) => {
    const args = argsArray[i] as unknown[];
    if (operator === ops.save || operator === ops.paintFormXObjectBegin) kept.push(matrix);
    if (operator === ops.restore || operator === ops.paintFormXObjectEnd) matrix = kept.pop() ?? matrix;
    const by = operator === ops.transform ? args : operator === ops.paintFormXObjectBegin ? args[0] : null;
    if (Array.isArray(by)) matrix = multiplied(matrix, by as unknown as Matrix);
    if (operator === ops.paintImageXObject || operator === ops.paintInlineImageXObject)
      pictures.push(boxIn(matrix, [0, 0, 1, 1]));
    // A path comes with the box around it.
    const around = operator === ops.constructPath ? [...((args?.[2] ?? []) as Iterable<number>)] : [];
    if (around.length === 4 && around.every(Number.isFinite))
      shapes.push(boxIn(matrix, around as unknown as Box));
  });
  return { pictures, shapes };
}

/** The box around another one that was moved, turned or stretched. */
function boxIn([a, b, c, d, e, f]: Matrix, [left, low, right, high]: Box): Box {
  const corners = [
    [left, low],
    [right, low],
    [left, high],
    [right, high],
  ] as const;
  const xs = corners.map(([x, y]) => a * x + c * y + e);
  const ys = corners.map(([x, y]) => b * x + d * y + f);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}
