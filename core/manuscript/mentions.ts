import { literalPattern } from "./literal-pattern.ts";
import type { Node } from "prosemirror-model";
import { placeAt } from "./edit-anchors.ts";
import { linkUses, type LinkUse } from "./links.ts";

/** How a phrase is looked for. */
export interface PhraseOptions {
  /** Only where no letter or digit stands before or behind it. */
  wholeWords: boolean;
  matchCase: boolean;
}

/** One place in a chapter where a phrase, or something of a pattern, stands. */
export interface Mention {
  from: number;
  to: number;
  text: string;
  /** The words before and behind it in its paragraph, up to about forty characters each. */
  before: string;
  after: string;
  inHeading: boolean;
  /** The link that it lies in or touches, or null. */
  link: LinkUse | null;
  /** The place that stands there already: its heading, or an anchor before it. */
  place: string | null;
}

const contextLength = 40;

/** Every mention of a phrase in a chapter, in the order of the document; blanks in it match any blanks. */
export function findMentions(doc: Node, phrase: string, options: PhraseOptions): Mention[] {
  const words = phrase.trim().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const body = words.map(literalPattern).join("\\s+");
  const bounded = options.wholeWords ? `(?<![\\p{L}\\p{N}_])${body}(?![\\p{L}\\p{N}_])` : body;
  return findPattern(doc, new RegExp(bounded, options.matchCase ? "gu" : "giu"));
}

/**
 * Everything in a chapter that a global pattern matches inside one paragraph. Listings are left out.
 * @param meant what of a match is meant, where that is not all of it; null for nothing
 */
export function findPattern(
  doc: Node,
  pattern: RegExp,
  meant: (match: string) => string | null = (match) => match,
): Mention[] {
  const links = linkUses(doc).filter((use) => use.on !== "hotspot");
  let firstLink = 0;
  const mentions: Mention[] = [];
  doc.descendants((block, position) => {
    if (!block.isTextblock) return true;
    if (block.type.spec.code) return false;
    // Pictures, breaks and note numbers take one character each, as they do in positions.
    const text = block.textBetween(0, block.content.size, "", "\ufffc");
    for (const match of text.matchAll(pattern)) {
      const found = meant(match[0]);
      if (!found) continue;
      const start = match.index + match[0].indexOf(found);
      const end = start + found.length;
      const from = position + 1 + start;
      const to = from + found.length;
      while (firstLink < links.length && links[firstLink]!.to <= from) firstLink++;
      const next = links[firstLink];
      mentions.push({
        from,
        to,
        text: found,
        before: context(text.slice(Math.max(0, start - contextLength), start)),
        after: context(text.slice(end, end + contextLength)),
        inHeading: block.type.name === "heading" || block.type.name === "title",
        link: next && next.from < to ? next : null,
        place: placeAt(doc, from),
      });
    }
    return false;
  });
  return mentions;
}

/** Which mentions are ticked at first. */
export interface MentionRules {
  skipHeadings: boolean;
  /** What becomes of a mention that is linked already. */
  linked: "skip" | "retarget";
  /** Of each chapter only the first one that the other rules leave. */
  firstOnly: boolean;
}

/** The mentions of one chapter that rules leave. One that only touches a link is never taken. */
export function chooseMentions<M extends Mention>(mentions: M[], rules: MentionRules): M[] {
  const left = mentions.filter((mention) => {
    if (rules.skipHeadings && mention.inHeading) return false;
    if (!mention.link) return true;
    const inside = mention.link.from <= mention.from && mention.to <= mention.link.to;
    return rules.linked === "retarget" && inside;
  });
  return rules.firstOnly ? left.slice(0, 1) : left;
}

function context(text: string): string {
  return text.replace(/\ufffc/g, " ").replace(/\s+/g, " ");
}
