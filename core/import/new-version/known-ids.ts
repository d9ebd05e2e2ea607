import type { Node } from "prosemirror-model";
import { writeDestination } from "../../destination/destination.ts";
import { linkUses, type LinkUse } from "../../manuscript/links.ts";
import { schema } from "../../manuscript/schema.ts";
import { align, blockWords, commonShare, textblocksOf, wordSet, type Pair } from "./align.ts";

/** Chapters that are known, each with the one of a new version that it has become. */
export type ChapterPair = Pair<Node>;

/**
 * Finds what of a new version is known already: for each id that it was given anew, the one under which links, places
 * and notes of the same words and destinations have been known.
 */
export function knownIds(chapters: readonly ChapterPair[]): Map<string, string> {
  const ids = new Map<string, string>();
  const learn = (arrived: unknown, known: unknown): void => {
    if (typeof arrived === "string" && typeof known === "string" && arrived !== known)
      ids.set(arrived, known);
  };
  const keyOf = (block: Node): string => `${block.type.name} ${blockWords(block)}`;
  const blocks = chapters.flatMap(([known, arrived]): Pair<Node>[] => {
    const [[title, ...others], [arrivedTitle, ...arrivedOthers]] = [
      textblocksOf(known),
      textblocksOf(arrived),
    ];
    return [[title!, arrivedTitle!], ...align(others, arrivedOthers, keyOf, blockWords)];
  });
  blocks.push(...movedBlocks(chapters, blocks, keyOf));
  for (const [known, arrived] of movedNotes(chapters, blocks)) learn(arrived.attrs["id"], known.attrs["id"]);
  for (const [known, arrived] of blocks) {
    learn(arrived.attrs["id"], known.attrs["id"]);
    for (const name of ["anchor", "note_reference", "cross_reference"])
      childrenOf(known, name).forEach((one, i) => {
        const other = childrenOf(arrived, name)[i];
        if (!other) return;
        learn(other.attrs["id"], one.attrs["id"]);
        learn(other.attrs["note"], one.attrs["note"]);
      });
  }
  const taken = new Set<string>();
  // Where links lead is compared as it will be once places are known.
  for (const [known, arrived] of blocks) {
    const there = usesIn(known);
    for (const key of [
      (use: LinkUse) => `${use.text} ${writtenAs(use, ids)}`,
      (use: LinkUse) => use.text,
      (use: LinkUse) => writtenAs(use, ids),
    ])
      for (const use of usesIn(arrived)) {
        if (ids.has(use.id)) continue;
        const at = there.findIndex((one) => key(one) === key(use));
        if (at === -1) continue;
        learn(use.id, there[at]!.id);
        taken.add(there[at]!.id);
        there.splice(at, 1);
      }
    // Of what is left in a paragraph, links with words in common are the same, and so is the only one.
    const left = usesIn(arrived).filter(({ id }) => !ids.has(id));
    for (const use of left) {
      const at =
        left.length === 1 && there.length === 1
          ? 0
          : there.findIndex((one) => commonShare(wordSet(one.text), wordSet(use.text)) >= 0.3);
      if (at === -1 || !there[at]) continue;
      learn(use.id, there[at].id);
      taken.add(there[at].id);
      there.splice(at, 1);
    }
  }
  // What has moved to another paragraph is the same link where its words and destination are.
  const elsewhere = chapters.flatMap(([known]) => linkUses(known)).filter(({ id }) => !taken.has(id));
  for (const use of chapters.flatMap(([, arrived]) => linkUses(arrived))) {
    if (ids.has(use.id)) continue;
    const key = `${use.text} ${writtenAs(use, ids)}`;
    const at = elsewhere.findIndex((one) => `${one.text} ${writtenAs(one, ids)}` === key);
    if (at === -1) continue;
    learn(use.id, elsewhere[at]!.id);
    elsewhere.splice(at, 1);
  }
  return ids;
}

/** Blocks that stand elsewhere now, word for word: in their own chapter first, then in any. */
function movedBlocks(
  chapters: readonly ChapterPair[],
  paired: readonly Pair<Node>[],
  keyOf: (block: Node) => string,
): Pair<Node>[] {
  const done = new Set(paired.flat());
  const pairs: Pair<Node>[] = [];
  const find = (known: readonly Node[], arrived: readonly Node[]): void => {
    const left = new Map<string, Node[]>();
    for (const block of known)
      if (!done.has(block) && blockWords(block) !== "")
        left.set(keyOf(block), [...(left.get(keyOf(block)) ?? []), block]);
    for (const block of arrived) {
      const one = done.has(block) ? undefined : left.get(keyOf(block))?.shift();
      if (!one) continue;
      done.add(one).add(block);
      pairs.push([one, block]);
    }
  };
  for (const [known, arrived] of chapters) find(textblocksOf(known), textblocksOf(arrived));
  find(
    chapters.flatMap(([known]) => textblocksOf(known)),
    chapters.flatMap(([, arrived]) => textblocksOf(arrived)),
  );
  return pairs;
}

/** Notes whose words have been found again. */
function movedNotes(chapters: readonly ChapterPair[], paired: readonly Pair<Node>[]): Pair<Node>[] {
  const noteOf = new Map<Node, Node>();
  for (const doc of chapters.flat())
    for (const note of doc.children)
      if (note.type === schema.nodes.note) for (const block of textblocksOf(note)) noteOf.set(block, note);
  return paired.flatMap(([known, arrived]): Pair<Node>[] => {
    const [one, other] = [noteOf.get(known), noteOf.get(arrived)];
    return one && other ? [[one, other]] : [];
  });
}

function childrenOf(block: Node, name: string): Node[] {
  return block.children.filter(({ type }) => type.name === name);
}

function usesIn(block: Node): LinkUse[] {
  const doc = schema.nodes.doc!.create(null, [block]);
  return linkUses(doc).filter(({ on }) => on !== "reference");
}

function writtenAs({ destination }: LinkUse, ids: ReadonlyMap<string, string>): string {
  return destination.kind === "place"
    ? `place ${ids.get(destination.target) ?? destination.target}`
    : writeDestination(destination);
}

/** So much alike are two chapters of which one has become the other. */
const alike = 0.25;

/**
 * The chapters of a new version, each with the known one that it has become: those that have most of their title and
 * paragraphs in common.
 */
export function pairChapters(known: readonly Node[], arrived: readonly Node[]): ChapterPair[] {
  const traits = (doc: Node): { title: string; blocks: Set<string> } => ({
    // Numbers of chapters stand in files, and not in the manuscript.
    title: blockWords(doc.firstChild!)
      .toLowerCase()
      .replace(/^[\d.\s]+/, ""),
    blocks: new Set(textblocksOf(doc).slice(1).map(blockWords).filter(Boolean)),
  });
  const [knownTraits, arrivedTraits] = [known.map(traits), arrived.map(traits)];
  const scores = arrivedTraits.flatMap((own, b) =>
    knownTraits.map((other, a) => {
      const titles = own.title === other.title ? 1.2 : commonShare(wordSet(own.title), wordSet(other.title));
      const common = [...own.blocks].filter((block) => other.blocks.has(block)).length;
      const score = common / Math.max(1, own.blocks.size, other.blocks.size) + titles / 2;
      return { a, b, score };
    }),
  );
  const pairs: ChapterPair[] = [];
  const [takenA, takenB] = [new Set<number>(), new Set<number>()];
  for (const { a, b, score } of scores.sort((one, other) => other.score - one.score)) {
    if (score <= alike || takenA.has(a) || takenB.has(b)) continue;
    takenA.add(a);
    takenB.add(b);
    pairs.push([known[a]!, arrived[b]!]);
  }
  return pairs;
}
