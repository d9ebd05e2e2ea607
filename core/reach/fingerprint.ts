/** What a page was like when it was linked: enough to tell whether it is another now, and nothing to read it by. */
export interface Fingerprint {
  title: string | null;
  headings: readonly string[];
  /** The primary subtag of its language (BCP 47), in lower case. */
  language: string | null;
  /** How many shingles of its words there are. */
  shingles: number;
  /** The least hashes of its shingles, 32 bits each, in rising order: a bottom-k sketch of them. */
  sketch: readonly number[];
  /** The words at the part that its address names; null where it names none. */
  part: string | null;
}

/** What is another of a page, and what it was and is called. */
export interface PageChange {
  /** The page, only the part that the address names, or so much that the name may have changed hands. */
  what: "page" | "part" | "hands";
  /** Which share of the words of then is still there, from 0 to 1. */
  kept: number;
  then: { title: string | null; headings: readonly string[] };
  now: { title: string | null; headings: readonly string[] };
}

const sketchSize = 128;
const shingleLength = 3;
/** Below so many shingles a page says too little to be compared by them. */
const fewest = 12;

/** With less of its words a page is another, whatever it is called. */
const gone = 0.12;
/** With less of them it is another if it is called otherwise too. */
const doubtful = 0.4;
/** From this share of its words on a title is the same. */
const sameTitle = 0.5;
/** A part with less of its words is another. */
const goneFromPart = 0.2;

/** A fingerprint of what was read of a page. @param words the words that it is about */
export function fingerprintOf(page: {
  title: string | null;
  headings: readonly string[];
  language: string | null;
  words: string;
  part: string | null;
}): Fingerprint {
  const hashes = shinglesOf(page.words);
  return {
    title: page.title,
    headings: page.headings,
    language: page.language,
    shingles: hashes.size,
    sketch: [...Uint32Array.from(hashes).sort().slice(0, sketchSize)],
    part: page.part,
  };
}

/**
 * What has changed of a page beyond what changes from day to day: dates, counters, adverts and lists of news are no
 * words of it. Null where it is still what it was. Thresholds were set on pairs of pages (`docs/benchmarks.md`).
 */
export function changeOf(then: Fingerprint, now: Fingerprint): PageChange | null {
  const kept = keptShare(then, now);
  const told = (what: PageChange["what"]): PageChange => ({
    what,
    kept: Math.round(kept * 100) / 100,
    then: { title: then.title, headings: then.headings.slice(0, 8) },
    now: { title: now.title, headings: now.headings.slice(0, 8) },
  });
  const title = overlap(...ownTitles(then.title ?? "", now.title ?? ""));
  const headings = overlap(then.headings.join(" "), now.headings.join(" "));
  const isOtherLanguage = then.language !== null && now.language !== null && then.language !== now.language;
  if (then.shingles < fewest) {
    // Of so few words only a name tells.
    return title === 0 && headings < sameTitle && kept < doubtful && (then.title ?? "") !== ""
      ? told("page")
      : null;
  }
  if (isOtherLanguage && kept < gone && title < sameTitle && headings < sameTitle) return told("hands");
  if (kept < gone) return told("page");
  if (kept < doubtful && title < sameTitle && headings < sameTitle) return told("page");
  if (then.part !== null && now.part !== null && overlap(then.part, now.part, 2) < goneFromPart)
    return told("part");
  return null;
}

/** Which share of the shingles of then is among those of now, estimated by the sketches (bottom-k of the union). */
function keptShare(then: Fingerprint, now: Fingerprint): number {
  if (then.shingles === 0) return 1;
  const a = new Set(then.sketch);
  const b = new Set(now.sketch);
  const union = [...new Set([...then.sketch, ...now.sketch])].sort((x, y) => x - y).slice(0, sketchSize);
  const both = union.filter((hash) => a.has(hash) && b.has(hash)).length;
  const jaccard = both / union.length;
  const common = (jaccard / (1 + jaccard)) * (then.shingles + now.shingles);
  return Math.min(1, common / then.shingles);
}

/** Two titles without the parts that they share, such as the name of their site, unless that is all there is. */
function ownTitles(then: string, now: string): [string, string] {
  const parts = (title: string): string[] => title.split(/\s+[|–—·:•»-]\s+/u);
  const [ofThen, ofNow] = [parts(then), parts(now)];
  const without = (own: string[], other: string[]): string =>
    own.filter((part) => !other.includes(part)).join(" ");
  const [one, two] = [without(ofThen, ofNow), without(ofNow, ofThen)];
  return one === "" || two === "" ? [then, now] : [one, two];
}

/** Which share of the words of one text, or of so many words behind each other, the other has too. */
function overlap(then: string, now: string, length = 1): number {
  const words = new Set(runsOf(then, length));
  const others = new Set(runsOf(now, length));
  if (words.size === 0) return others.size === 0 ? 1 : 0;
  let both = 0;
  for (const word of words) if (others.has(word)) both++;
  return both / words.size;
}

function shinglesOf(text: string): Set<number> {
  return new Set(runsOf(text, shingleLength).map(hashOf));
}

/** Every so many words behind each other. */
function runsOf(text: string, length: number): string[] {
  const words = wordsOf(text);
  return Array.from({ length: Math.max(0, words.length - length + 1) }, (_, i) =>
    words.slice(i, i + length).join(" "),
  );
}

/** Words in small letters, without numbers; each sign of a script that puts no blanks between words by itself. */
function wordsOf(text: string): string[] {
  return (
    text
      .toLowerCase()
      .normalize("NFKC")
      .match(
        /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Khmer}\p{Script=Lao}]|[\p{L}\p{M}]+/gu,
      ) ?? []
  );
}

/** FNV-1a, 32 bits (from memory), its bits mixed so that the least of many are a fair sample. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) {
    hash ^= text.charCodeAt(i);
    hash = Math.imul(hash, 0x01000193);
  }
  hash ^= hash >>> 16;
  hash = Math.imul(hash, 0x85ebca6b);
  hash ^= hash >>> 13;
  hash = Math.imul(hash, 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
