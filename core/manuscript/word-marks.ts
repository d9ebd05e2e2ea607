import type { Node, Schema } from "prosemirror-model";
import type { schema } from "./schema.ts";

type MarkName = typeof schema extends Schema<string, infer Name> ? Name : never;

/** How words can be shown: what is added to the schema fails the build until every writer knows it. */
export type WordMark = Exclude<MarkName, "link" | "language" | "plain">;

/** What a writer makes of each way in which words can be shown. */
export type ByWordMark<T> = { readonly [name in WordMark]: T };

/** What a table has for the marks on some words, innermost first. */
export function ofWordMarks<T>(node: Node, table: ByWordMark<T>): T[] {
  const made = node.marks.flatMap(({ type: { name } }) => (name in table ? [table[name as WordMark]] : []));
  return made.reverse();
}
