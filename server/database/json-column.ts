import type { ColumnOptions } from "typeorm";

/** A column that holds JSON of any length. MariaDB's own JSON type is an alias of this one. */
export function jsonColumn(options: ColumnOptions = {}): ColumnOptions {
  return {
    ...options,
    type: "longtext",
    transformer: {
      to: (value: unknown) => (value === null || value === undefined ? value : sent(JSON.stringify(value))),
      from: (value: string | null) => (value === null ? null : (JSON.parse(value) as unknown)),
    },
  };
}

/** A column that holds a text of any length, mostly JSON in which nobody on the way looks. */
export function longTextColumn(options: ColumnOptions = {}): ColumnOptions {
  return {
    ...options,
    type: "longtext",
    transformer: { to: (value: unknown) => (typeof value === "string" ? sent(value) : value), from: String },
  };
}

/** As bytes: the driver escapes a text quote by quote, which takes it most of a second for some megabytes of JSON. */
function sent(text: string): Buffer {
  return Buffer.from(text);
}
