import type { Box } from "./exported-link.ts";

/** How much of some boxes lies under others, from 0 to 1: where a press would reach what covers them. */
export function coveredShare(boxes: readonly Box[], above: readonly Box[]): number {
  const whole = boxes.reduce((sum, box) => sum + area(box), 0);
  if (whole === 0) return 0;
  // Boxes above may overlap each other, so each strip between their edges is looked at once.
  const covered = boxes.reduce((sum, box) => sum + coveredArea(box, above), 0);
  return covered / whole;
}

function coveredArea(box: Box, above: readonly Box[]): number {
  const parts = above.map((other) => common(box, other)).filter((part) => area(part) > 0);
  const edges = [...new Set(parts.flatMap(([left, , right]) => [left, right]))].sort((a, b) => a - b);
  let sum = 0;
  for (let i = 1; i < edges.length; i++) {
    const [from, to] = [edges[i - 1]!, edges[i]!];
    const heights = parts
      .filter(([left, , right]) => left <= from && right >= to)
      .map(([, low, , high]): [number, number] => [low, high])
      .sort(([a], [b]) => a - b);
    let reached = -Infinity;
    for (const [low, high] of heights) {
      sum += Math.max(0, high - Math.max(low, reached)) * (to - from);
      reached = Math.max(reached, high);
    }
  }
  return sum;
}

function common(a: Box, b: Box): Box {
  return [Math.max(a[0], b[0]), Math.max(a[1], b[1]), Math.min(a[2], b[2]), Math.min(a[3], b[3])];
}

function area([left, low, right, high]: Box): number {
  return Math.max(0, right - left) * Math.max(0, high - low);
}
