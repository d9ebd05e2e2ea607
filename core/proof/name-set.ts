/** The names that stand in some lines, one behind the other. */
export function nameSet(...lines: string[]): ReadonlySet<string> {
  return new Set(lines.join(" ").split(" "));
}
