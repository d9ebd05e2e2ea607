import { writeDestination } from "./destination.ts";
import type { Destination } from "./kinds/kinds.ts";

/** A destination that the author may mean: one used before, a companion file, a page, a heading. */
export interface KnownDestination {
  destination: Destination;
  /** What it is called. */
  name: string;
  /** What tells it from others of the same name: a chapter, a folder, the words that lead there. */
  detail: string;
  /** How many links lead there already. */
  uses: number;
  /** How many pages a file has, to which links can lead each; left out where it has none. */
  pages?: number;
}

const kinds: readonly string[] = ["place", "web", "email", "file"];

/** What is compared of a known destination, its letters folded. */
interface Folded {
  name: string;
  /** Its name, detail and address. */
  all: string;
  /** The same for all that lead to one destination. */
  key: string;
}

/** The same are asked for letter by letter, thousands of them. */
const foldedOf = new WeakMap<KnownDestination, Folded>();

function folded(item: KnownDestination): Folded {
  const known = foldedOf.get(item);
  if (known) return known;
  const name = fold(item.name);
  const address = writeDestination(item.destination);
  const all = `${name} ${fold(item.detail)} ${fold(address)}`;
  const made = { name, all, key: `${item.destination.kind} ${address}` };
  foldedOf.set(item, made);
  return made;
}

const byName = new Intl.Collator();

/**
 * The known destinations that what was typed may mean, best first: every word typed is in the name, the
 * detail or the address, or its letters are in the name in their order, for who types in a hurry. A name
 * that begins with what was typed comes first, then one in which a word does; of equal ones those that
 * are used most, then the places of the book.
 */
export function suggest(typed: string, known: readonly KnownDestination[], limit = 8): KnownDestination[] {
  const words = fold(typed).split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const ranked: { rank: number; item: KnownDestination }[] = [];
  const offered = new Set<string>();
  for (const item of known) {
    const { name, all, key } = folded(item);
    const isWhole = words.every((word) => all.includes(word));
    if (!isWhole && !hasLetters(name, words.join(""))) continue;
    if (offered.has(key)) continue;
    offered.add(key);
    const first = words[0]!;
    const rank = !isWhole
      ? 4
      : name.startsWith(first)
        ? 0
        : wordStart(name, first)
          ? 1
          : name.includes(first)
            ? 2
            : 3;
    ranked.push({ rank, item });
  }
  ranked.sort(
    (a, b) =>
      a.rank - b.rank ||
      b.item.uses - a.item.uses ||
      kinds.indexOf(a.item.destination.kind) - kinds.indexOf(b.item.destination.kind) ||
      byName.compare(a.item.name, b.item.name),
  );
  return ranked.slice(0, limit).map(({ item }) => item);
}

/** Whether letters stand in a name in their order, with others between; three at least, or all would fit. */
function hasLetters(name: string, letters: string): boolean {
  let at = 0;
  for (const letter of name) if (letter === letters[at]) at++;
  return letters.length >= 3 && at === letters.length;
}

function wordStart(name: string, word: string): boolean {
  return name.split(/[^\p{L}\p{N}]+/u).some((part) => part.startsWith(word));
}

/** Letters without their accents, in lower case: what is the same to a hurried eye. */
function fold(text: string): string {
  return text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();
}
