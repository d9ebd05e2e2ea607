/** How coordinates become others (ISO 32000-1, 8.3.3): x becomes ax + cy + e, y becomes bx + dy + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const unchanged: Matrix = [1, 0, 0, 1, 0, 0];

/** The matrix that does what the second does, and then the first. */
export function multiplied([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix {
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}
