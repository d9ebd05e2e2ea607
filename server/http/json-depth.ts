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
