/**
 * The levels of a tree, from its root down. However deep the tree is, whoever walks it so is never as deep: what comes
 * from outside is judged for its depth this way, before anything goes into it by calling itself.
 * @param inside what lies directly in one
 */
export function* levels<T>(root: T, inside: (one: T) => Iterable<T>): Generator<T[]> {
  for (let level = [root]; level.length > 0;) {
    yield level;
    const next: T[] = [];
    for (const one of level) for (const inner of inside(one)) next.push(inner);
    level = next;
  }
}
