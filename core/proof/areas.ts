import type { Box, ReadArea } from "./exported-link.ts";

/** How far an area may be from where it should be, as a share of the picture: files tell hundredths of a pixel. */
const tolerance = 0.01;
/** How far a box on a page may be from where it should be, in points. */
const pointsOff = 2.5;

/** Whether two areas take the same part of a picture. */
export function isSameArea(found: ReadArea, wanted: ReadArea): boolean {
  if (found.shape !== wanted.shape) return false;
  const [ours, theirs] =
    wanted.shape === "polygon" ? [found.points, wanted.points] : [corners(found), corners(wanted)];
  return (
    ours.length === theirs.length &&
    ours.every(
      ([x, y], i) => Math.abs(x - theirs[i]![0]) < tolerance && Math.abs(y - theirs[i]![1]) < tolerance,
    )
  );
}

/** Whether a box on a page is the part of a picture on it that an area takes. */
export function isShareOf(box: Box, [left, low, right, high]: Box, wanted: ReadArea): boolean {
  const [[fromX, fromY], [toX, toY]] = corners(wanted);
  const [across, down] = [right - left, high - low];
  // A page is measured from its foot, a picture from its top.
  const ought = [left + fromX * across, high - toY * down, left + toX * across, high - fromY * down];
  return ought.every((edge, i) => Math.abs(edge - box[i]!) < pointsOff);
}

/** The upper left and the lower right corner of the box that holds an area. */
function corners({ points }: ReadArea): [[number, number], [number, number]] {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}
