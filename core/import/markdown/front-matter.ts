import { parse } from "yaml";
import { conventionsOf } from "../hast-to-manuscript/carried.ts";
import type { AboutManuscript } from "../manuscript-reader.ts";

/** What stands before a text between two lines of three hyphens (YAML 1.2), and the text with empty lines in its place. */
export function frontMatter(text: string): { about: AboutManuscript | undefined; text: string } {
  const [whole, yaml] =
    /^\ufeff?---[ \t]*\r?\n([\s\S]*?)\r?\n(?:---|\.\.\.)[ \t]*(?=\r?\n|$)/.exec(text) ?? [];
  if (whole === undefined) return { about: undefined, text };
  let said: unknown;
  try {
    said = parse(yaml!, { maxAliasCount: 10 });
  } catch {
    // A line between words is no front matter.
    return { about: undefined, text };
  }
  if (said === null || typeof said !== "object" || Array.isArray(said)) return { about: undefined, text };
  const values = said as Record<string, unknown>;
  const about = {
    title: wordsOf(values["title"]),
    author: wordsOf(values["author"] ?? values["authors"]),
    language: wordsOf(values["lang"] ?? values["language"]),
    conventions: conventionsOf(values["counts"]),
  };
  // Lines keep their numbers.
  return { about, text: whole.replace(/[^\n]+/g, "") + text.slice(whole.length) };
}

/** A value as words: names of several in one line. */
function wordsOf(value: unknown): string | null {
  if (typeof value === "string" || typeof value === "number") return String(value).trim() || null;
  if (Array.isArray(value)) return value.flatMap((one) => wordsOf(one) ?? []).join(", ") || null;
  if (value !== null && typeof value === "object") return wordsOf((value as { name?: unknown }).name);
  return null;
}
