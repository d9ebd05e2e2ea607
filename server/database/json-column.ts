import type { ColumnOptions } from "typeorm";

/** A column that holds JSON of any length. MariaDB's own JSON type is an alias of this one. */
export function jsonColumn(options: ColumnOptions = {}): ColumnOptions {
  return {
    ...options,
    type: "longtext",
    transformer: {
      to: (value: unknown) => (value === null || value === undefined ? value : JSON.stringify(value)),
      from: (value: string | null) => (value === null ? null : (JSON.parse(value) as unknown)),
    },
  };
}
