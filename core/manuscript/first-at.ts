/** The index of the first item for which something holds, as it does for all after it; their number where it never does. */
export function firstAt<T>(items: ArrayLike<T>, is: (item: T) => boolean): number {
  let [low, high] = [0, items.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (is(items[middle]!)) high = middle;
    else low = middle + 1;
  }
  return low;
}
