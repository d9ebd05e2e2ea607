import { percentDecoded } from "../destination/percent-decoded.ts";
import { unspacedLetter } from "../manuscript/unspaced-scripts.ts";

/** Words that an address points at within a page (URL Fragment Text Directives, section 3, from memory). */
export interface TextDirective {
  prefix: string | null;
  start: string;
  end: string | null;
  suffix: string | null;
}

/** The text directives of an address; none where it has no `:~:`, or only ones that cannot be read. */
export function textDirectives(address: string): TextDirective[] {
  const [, directives] = /:~:(.*)$/s.exec(new URL(address).hash) ?? [];
  return (directives?.split("&") ?? []).flatMap((directive): TextDirective[] => {
    if (!directive.startsWith("text=")) return [];
    const terms = directive.slice("text=".length).split(",");
    const prefix = terms[0]?.endsWith("-") ? terms.shift()!.slice(0, -1) : null;
    const suffix = terms.at(-1)?.startsWith("-") ? terms.pop()!.slice(1) : null;
    if (terms.length === 0 || terms.length > 2) return [];
    const [start, end = null] = terms;
    const read = [prefix, start!, end, suffix].map((term) => (term === null ? null : percentDecoded(term)));
    const [before, from, to, behind] = read as [string | null, string, string | null, string | null];
    return from === "" ? [] : [{ prefix: before, start: from, end: to, suffix: behind }];
  });
}

/** Whether words are found in a page's text, as browsers look for them: whole words, in whatever case and with whatever accents. */
export function hasText(text: string, { prefix, start, end, suffix }: TextDirective): boolean {
  const page = folded(text);
  const [before, from, to, behind] = [prefix, start, end, suffix].map((term) =>
    term === null ? null : folded(term),
  );
  for (let at = find(page, from!, 0); at !== -1; at = find(page, from!, at + 1)) {
    if (before && !page.slice(0, at).trimEnd().endsWith(before)) continue;
    const last = to ? find(page, to, at + from!.length) : at;
    if (last === -1) return false;
    const rest = page.slice(last + (to ?? from!).length).trimStart();
    if (!behind || rest.startsWith(behind)) return true;
  }
  return false;
}

/** Without accents, in small letters, each run of blanks as one. */
function folded(text: string): string {
  return text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase().replace(/\s+/g, " ").trim();
}

/** Where words begin that are bounded as words are; -1 where they are not. */
function find(page: string, words: string, from: number): number {
  const letter = /[\p{L}\p{N}]/u;
  const isInside = (one: string | undefined, other: string | undefined): boolean =>
    one !== undefined &&
    other !== undefined &&
    letter.test(one) &&
    letter.test(other) &&
    !unspaced.test(one + other);
  for (let at = page.indexOf(words, from); at !== -1; at = page.indexOf(words, at + 1))
    if (!isInside(page[at - 1], words[0]) && !isInside(words.at(-1), page[at + words.length])) return at;
  return -1;
}

const unspaced = new RegExp(unspacedLetter, "u");
