import { diffWordsWithSpace } from "diff";
import type { Node } from "prosemirror-model";
import { sameDestination } from "../destination/destination.ts";
import type { Destination } from "../destination/kinds/kinds.ts";
import { linkUses, type LinkUse } from "./links.ts";
import { gapsBetween } from "./list-gaps.ts";
import { sameLook, type OwnLook } from "./looks.ts";

/** What became of one link from one version of a chapter to another. */
export type LinkDifference =
  | { kind: "added"; after: LinkState }
  | { kind: "removed"; before: LinkState }
  | { kind: "changed"; before: LinkState; after: LinkState };

export interface LinkState {
  id: string;
  text: string;
  destination: Destination;
  description: string | null;
  /** A look of its own; left out in what was kept before there were any. */
  look?: OwnLook | null;
}

/** A stretch of text that both versions have, or only one. */
export interface TextPart {
  kind: "same" | "added" | "removed";
  text: string;
}

export interface ChapterDifference {
  /** The links that differ, in the order of the later version; those that are gone come last. */
  links: LinkDifference[];
  /** The text of both versions, a paragraph a list. */
  paragraphs: TextPart[][];
}

/** Compares two versions of a chapter: links by their ids, words paragraph by paragraph. */
export function compareVersions(before: Node, after: Node): ChapterDifference {
  return { links: linkDifferences(before, after), paragraphs: textDifferences(before, after) };
}

/** The links that differ between two versions of a chapter. */
export function linkDifferences(before: Node, after: Node): LinkDifference[] {
  const old = new Map(linkUses(before).map((use) => [use.id, use]));
  const differences: LinkDifference[] = [];
  for (const use of linkUses(after)) {
    const was = old.get(use.id);
    old.delete(use.id);
    if (!was) differences.push({ kind: "added", after: state(use) });
    else if (
      was.text !== use.text ||
      was.description !== use.description ||
      !sameLook(was.look, use.look) ||
      !sameDestination(was.destination, use.destination)
    )
      differences.push({ kind: "changed", before: state(was), after: state(use) });
  }
  for (const gone of old.values()) differences.push({ kind: "removed", before: state(gone) });
  return differences;
}

function state({ id, text, destination, description, look }: LinkUse): LinkState {
  return { id, text, destination, description, look };
}

function textDifferences(before: Node, after: Node): TextPart[][] {
  const paragraphs: TextPart[][] = [];
  const [old, now] = [paragraphsOf(before), paragraphsOf(after)];
  let at = 0;
  const sameUntil = (end: number): void => {
    for (const text of now.slice(at, end)) paragraphs.push([{ kind: "same", text }]);
  };
  for (const { from, to, start, end } of gapsBetween(old, now)) {
    sameUntil(start);
    at = end;
    const [gone, come] = [old.slice(from, to), now.slice(start, end)];
    // What was taken out and put in at one place is one paragraph rewritten, as far as the pairs go.
    if (gone.length > 0 && come.length > 0)
      for (let i = 0; i < Math.max(gone.length, come.length); i++)
        paragraphs.push(wordDifferences(gone[i] ?? "", come[i] ?? ""));
    else {
      for (const text of gone) paragraphs.push([{ kind: "removed", text }]);
      for (const text of come) paragraphs.push([{ kind: "added", text }]);
    }
  }
  sameUntil(now.length);
  return paragraphs;
}

/** The words of two texts in one: what both have, what went and what came. */
export function wordDifferences(before: string, after: string): TextPart[] {
  return diffWordsWithSpace(before, after).map(({ value, added, removed }) => ({
    kind: added ? "added" : removed ? "removed" : "same",
    text: value,
  }));
}

function paragraphsOf(doc: Node): string[] {
  const texts: string[] = [];
  doc.descendants((block) => {
    if (!block.isTextblock) return true;
    texts.push(block.textBetween(0, block.content.size, "", " "));
    return false;
  });
  return texts;
}
