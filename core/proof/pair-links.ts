import { hasLettersToLeft } from "../manuscript/direction.ts";
import { asSet, comparable } from "./comparable.ts";
import { valueOf, type ExportedLink, type FormatTraits } from "./exported-link.ts";
import { isSetFrom } from "./formula-words.ts";
import { whyMisnamed } from "./judge-link.ts";
import type { ManuscriptLink } from "./manuscript-links.ts";

/** A link that was found in a file, whole. */
export interface Found {
  link: ExportedLink;
  /** All pieces of a link that was broken over pages. */
  pieces: ExportedLink[];
  key: string;
  where: string[];
  taken: boolean;
}

/** What was found in a file, and which of it is which link of the manuscript. */
export interface Pairs {
  /** The links of the file, broken ones joined. */
  exported: Found[];
  /** What a link was found as, a part each; undefined for one that is not there. Asked of each link once, in their order. */
  matchesOf(link: ManuscriptLink): (Found | undefined)[];
}

/** By what the parts of each link of the manuscript are found in the file. */
type KeysOf = ReadonlyMap<ManuscriptLink, readonly string[]>;

/** Pairs the links of a manuscript with those of a file by exact destination and words. @param links without the apparatus */
export function pairLinks(
  manuscript: readonly ManuscriptLink[],
  links: readonly ExportedLink[],
  traits: FormatTraits,
): Pairs {
  const keysOf = new Map(manuscript.map((link) => [link, expectedKeys(link, traits)]));
  const exported = joinBrokenLinks(links, keysOf, traits);
  const byKey = new Map<string, Found[]>();
  for (const found of exported) {
    const alike = byKey.get(found.key);
    if (alike) alike.push(found);
    else byKey.set(found.key, [found]);
  }
  const named = takeNamed(keysOf, byKey, traits);
  return {
    exported,
    matchesOf: (link) =>
      keysOf
        .get(link)!
        .map(
          (key, part) =>
            named.get(link)?.[part] ??
            takeLike(byKey.get(key) ?? [], link) ??
            (traits.isPaged ? takeSet(link, part, byKey, exported) : undefined),
        ),
  };
}

/**
 * Takes for each link those with the same words and destination that say what it says of itself. What is left of others
 * of these words is taken after that: none takes what another ought to have.
 */
function takeNamed(
  keysOf: KeysOf,
  byKey: ReadonlyMap<string, Found[]>,
  traits: FormatTraits,
): ReadonlyMap<ManuscriptLink, (Found | undefined)[]> {
  const expected = [...keysOf.keys()].filter((link) => !link.isLeftOut && link.expected);
  const described = expected.filter(({ description }) => description !== null);
  const others = expected.filter(({ description }) => description === null);
  return new Map(
    // What its format says of a link may stand in what an author says of another, who comes first.
    [...described, ...others].map((link) => {
      const keys = keysOf.get(link)!;
      return [link, keys.map((key) => take(byKey.get(key) ?? [], (found) => isNamed(link, found, traits)))];
    }),
  );
}

function isNamed(link: ManuscriptLink, { pieces }: Found, traits: FormatTraits): boolean {
  return pieces.every((piece) => whyMisnamed(link, piece, traits) === null);
}

/** Takes the first of the links with the same words and destination, of those that say they are what this one is. */
function takeLike(found: Found[], { role }: ManuscriptLink): Found | undefined {
  return take(found, ({ link }) => link.role === role) ?? take(found, () => true);
}

function take(from: Found[], isWanted: (found: Found) => boolean): Found | undefined {
  const at = from.findIndex(isWanted);
  if (at === -1) return undefined;
  const [found] = from.splice(at, 1);
  found!.taken = true;
  return found;
}

/** Takes the first of the links with the same destination whose words are those of a part with formulas, as a page has them. */
function takeSet(
  { expected, parts, aroundFormulas }: ManuscriptLink,
  part: number,
  byKey: Map<string, Found[]>,
  exported: Found[],
): Found | undefined {
  const around = aroundFormulas[part];
  if (typeof around !== "string") return undefined;
  const found = exported.find(
    ({ link: { destination, text }, taken }) =>
      !taken &&
      destination.kind === expected!.kind &&
      valueOf(destination) === expected!.value &&
      isSetFrom(parts[part]!, around, text),
  );
  return found && take(byKey.get(found.key)!, (one) => one === found);
}

function joinBrokenLinks(links: readonly ExportedLink[], keysOf: KeysOf, traits: FormatTraits): Found[] {
  const wanted = new Set([...keysOf.values()].flat());
  const begins = beginningsOf([...keysOf.keys()], traits);
  const found = (link: ExportedLink): Found => ({
    link,
    pieces: [link],
    key: key(link.destination.kind, valueOf(link.destination), link.text, traits),
    where: [link.where],
    taken: false,
  });
  const out: Found[] = [];
  const open: Found[] = [];
  for (const link of links) {
    const next = found(link);
    if (wanted.has(next.key)) {
      out.push(next);
      continue;
    }
    // Several links may wait at once: one in the text and one in a note can break over the same page.
    const start = open.findIndex(
      (candidate) =>
        candidate.link.page !== null &&
        valueOf(candidate.link.destination) === valueOf(link.destination) &&
        link.page !== null &&
        link.page - candidate.link.page === 1 &&
        begins(`${candidate.link.text} ${link.text}`, link),
    );
    if (start === -1) {
      open.push(next);
      continue;
    }
    const joined = open[start]!;
    joined.link = { ...link, text: `${joined.link.text} ${link.text}` };
    joined.key = key(link.destination.kind, valueOf(link.destination), joined.link.text, traits);
    joined.where.push(link.where);
    joined.pieces.push(link);
    if (wanted.has(joined.key)) out.push(...open.splice(start, 1));
  }
  return [...out, ...open];
}

/** Whether words are what a link of the manuscript to the same destination begins with. */
function beginningsOf(
  manuscript: readonly ManuscriptLink[],
  traits: FormatTraits,
): (words: string, link: ExportedLink) => boolean {
  const byDestination = new Map<string, Set<string>>();
  const withFormulas = new Set<string>();
  for (const { expected, parts, aroundFormulas } of manuscript) {
    if (!expected) continue;
    if (aroundFormulas.some((around) => around !== null)) withFormulas.add(expected.value);
    const words = byDestination.get(expected.value) ?? new Set();
    byDestination.set(expected.value, words);
    for (const part of parts) words.add(part);
  }
  return (words, { destination }) => {
    // Signs among words from right to left stand at no place of their own, nor do the letters of formulas.
    if (hasLettersToLeft(words) || withFormulas.has(valueOf(destination))) return true;
    const begun = asSet(words.normalize("NFC"));
    return [...(byDestination.get(valueOf(destination)) ?? [])].some((one) =>
      comparable(one, traits).startsWith(begun),
    );
  };
}

/** By what each part of a link is found in the file. */
function expectedKeys({ expected, parts, isArea }: ManuscriptLink, traits: FormatTraits): string[] {
  if (!expected) return [];
  const texts = isArea && traits.isPaged ? [""] : parts;
  return texts.map((text) => key(expected.kind, expected.value, text, traits));
}

function key(as: string, value: string, text: string, traits: FormatTraits): string {
  // With its length, since an address may have anything in it.
  return `${as} ${value.length} ${value} ${comparable(text, traits)}`;
}
