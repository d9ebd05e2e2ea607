import { diffArrays } from "diff";

/** Where one list has other things than another: from `from` to `to` in the earlier, from `start` to `end` in the later. */
export interface Gap {
  from: number;
  to: number;
  start: number;
  end: number;
}

/** Where two lists differ, in their order; all that stands between is in both, and is as much as can be. */
export function gapsBetween(before: readonly string[], after: readonly string[]): Gap[] {
  // What one of them alone has pairs with nothing, and takes the square of its number to compare.
  const [inBefore, inAfter] = [new Set(before), new Set(after)];
  const [known, come] = [indicesOf(before, inAfter), indicesOf(after, inBefore)];
  const gaps: Gap[] = [];
  let [from, start] = [0, 0];
  const until = (to: number, end: number): void => {
    if (to > from || end > start) gaps.push({ from, to, start, end });
  };
  let [a, b] = [0, 0];
  const parts = diffArrays(
    known.map((i) => before[i]!),
    come.map((i) => after[i]!),
  );
  for (const { added, removed, value } of parts) {
    if (removed) a += value.length;
    else if (added) b += value.length;
    else
      for (let i = 0; i < value.length; i++) {
        until(known[a]!, come[b]!);
        [from, start] = [known[a++]! + 1, come[b++]! + 1];
      }
  }
  until(before.length, after.length);
  return gaps;
}

function indicesOf(all: readonly string[], wanted: ReadonlySet<string>): number[] {
  return all.flatMap((one, i) => (wanted.has(one) ? [i] : []));
}
