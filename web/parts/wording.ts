const long = new Intl.DateTimeFormat("en", { dateStyle: "medium", timeStyle: "short" });

/** A date and time as the author's own clock has it. */
export function shownDate(iso: string): string {
  return long.format(new Date(iso));
}

export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString("en")} ${count === 1 ? one : many}`;
}
