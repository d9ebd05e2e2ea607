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

/** Everything in a chapter that a global pattern matches inside one paragraph. Listings are left out. */
export function findPattern(doc: Node, pattern: RegExp): Mention[] {
  const links = linkUses(doc).filter((use) => use.on !== "hotspot");
  let firstLink = 0;
  const mentions: Mention[] = [];
  doc.descendants((block, position) => {
    if (!block.isTextblock) return true;
    if (block.type.spec.code) return false;
    // Pictures, breaks and note numbers take one character each, as they do in positions.
    const text = block.textBetween(0, block.content.size, "", "\ufffc");
    for (const match of text.matchAll(pattern)) {
      if (match[0] === "") continue;
      const from = position + 1 + match.index;
      const to = from + match[0].length;
      while (firstLink < links.length && links[firstLink]!.to <= from) firstLink++;
      const next = links[firstLink];
      mentions.push({
        from,
        to,
        text: match[0],
        before: context(text.slice(Math.max(0, match.index - contextLength), match.index)),
        after: context(text.slice(match.index + match[0].length).slice(0, contextLength)),
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
