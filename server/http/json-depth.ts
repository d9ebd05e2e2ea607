/** Whether a list in a value, which is not deep, has more than so many entries. */
export function hasLongerList(value: unknown, entries: number): boolean {
  if (entries === Infinity || typeof value !== "object" || value === null) return false;
  if (Array.isArray(value) && value.length > entries) return true;
  return Object.values(value).some((inner) => hasLongerList(inner, entries));
}

/** Whether a value has objects and lists within each other more than so many levels deep. */
export function isDeeperThan(value: unknown, levels: number): boolean {
  let level = [value];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > levels) return true;
    const next: unknown[] = [];
    for (const one of level)
      if (typeof one === "object" && one !== null) for (const inner of Object.values(one)) next.push(inner);
    level = next;
  }
  return false;
}
