const long = new Intl.DateTimeFormat("en", { dateStyle: "medium", timeStyle: "short" });

/** A date and time as the author's own clock has it. */
export function shownDate(iso: string): string {
  return long.format(new Date(iso));
}

const day = new Intl.DateTimeFormat("en", { dateStyle: "medium" });

/** The day alone, where there is no room for the hour. */
export function shownDay(iso: string): string {
  return day.format(new Date(iso));
}

export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString("en")} ${count === 1 ? one : many}`;
}

/** A file's size as people say it. */
export function fileSize(bytes: number): string {
  if (bytes < 1024) return plural(bytes, "byte");
  if (bytes < 1024 * 1024) return `${Math.round(bytes / 1024).toLocaleString("en")} KB`;
  return `${(bytes / 1024 / 1024).toLocaleString("en", { maximumFractionDigits: 1 })} MB`;
}
