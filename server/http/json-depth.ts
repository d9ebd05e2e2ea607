import { levels } from "@vennet/core/levels";

/** Whether a list in a value, which is not deep, has more than so many entries. */
export function hasLongerList(value: unknown, entries: number): boolean {
  if (entries === Infinity || typeof value !== "object" || value === null) return false;
  if (Array.isArray(value) && value.length > entries) return true;
  return Object.values(value).some((inner) => hasLongerList(inner, entries));
}

/** Whether a value has objects and lists within each other more than so many levels deep. */
export function isDeeperThan(value: unknown, most: number): boolean {
  const all = levels(value, valuesOf);
  for (let depth = 0; !all.next().done; depth++) if (depth > most) return true;
  return false;
}

function valuesOf(value: unknown): unknown[] {
  return typeof value === "object" && value !== null ? Object.values(value) : [];
}
