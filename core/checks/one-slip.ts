/** Whether one letter was left out, put in, changed, or swapped with its neighbour. */
export function isOneSlip(typed: string, meant: string): boolean {
  if (typed === meant || Math.abs(typed.length - meant.length) > 1) return false;
  let start = 0;
  while (start < typed.length && typed[start] === meant[start]) start++;
  let end = 0;
  const shorter = Math.min(typed.length, meant.length) - start;
  while (end < shorter && typed.at(-1 - end) === meant.at(-1 - end)) end++;
  const left = typed.slice(start, typed.length - end);
  const right = meant.slice(start, meant.length - end);
  if (left.length <= 1 && right.length <= 1) return true;
  return left.length === 2 && right.length === 2 && left[0] === right[1] && left[1] === right[0];
}
