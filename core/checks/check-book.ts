import type { Node } from "prosemirror-model";
import type { Book } from "../manuscript/book.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { kindNames } from "../destination/kinds/kinds.ts";
import type { LinkLooks } from "../manuscript/looks.ts";
import { placesOf } from "../manuscript/outline.ts";
import { checkChapter, rules } from "./check-chapter.ts";
import { judgeLook } from "./contrast.ts";
import type { Finding, Rule } from "./finding.ts";
import { contextIn, indexIn, nothingKnown, surroundingsOf, type KnownOfBook } from "./surroundings.ts";
import { textBeside } from "../manuscript/positions.ts";

/** A finding of a whole book, with where it stands. */
export interface BookFinding extends Finding {
  title: string;
  source: string;
  /** The index of its chapter; null for what is about the book. */
  chapter: number | null;
  /** The link that it is about, or null for another thing. */
  link: LinkUse | null;
  /** The words before and behind it in its paragraph; for another thing the words that stand there. */
  before: string;
  after: string;
}

const lettersAround = 80;

/** What the rules, or some of them, find in a whole book, gravest first, then rule by rule in reading order. */
export function checkBook(
  book: Book,
  known: KnownOfBook = nothingKnown,
  which: readonly Rule[] = rules,
): BookFinding[] {
  const surroundings = surroundingsOf(book, known);
  const index = indexIn(surroundings);
  const byId = new Map(rules.map((rule) => [rule.id, rule]));
  const said = new Set<string>();
  const found = book.chapters.flatMap(({ doc }, chapter): BookFinding[] => {
    const context = contextIn(surroundings, chapter, index);
    const links = new Map(linkUses(doc).map((use) => [use.id, use]));
    const standsAt = new Map(placesOf(doc).map(({ id, text, context }) => [id, text || context]));
    const isNew = ({ rule, onceFor }: Finding): boolean => {
      if (onceFor === undefined) return true;
      const isFirst = !said.has(`${rule} ${onceFor}`);
      said.add(`${rule} ${onceFor}`);
      return isFirst;
    };
    return checkChapter(doc, context, which)
      .filter(isNew)
      .map((finding) => {
        const { title, source } = byId.get(finding.rule)!;
        const link = links.get(finding.subject) ?? null;
        const words = link
          ? wordsAround(doc, link)
          : { before: standsAt.get(finding.subject) ?? "", after: "" };
        return Object.assign(finding, { title, source, chapter, link }, words);
      });
  });
  const order = { stop: 0, fix: 1, consider: 2 };
  const place = new Map(rules.map(({ id }, i) => [id, i]));
  return [...findLooks(book.looks), ...found].sort(
    (a, b) => order[a.severity] - order[b.severity] || (place.get(a.rule) ?? -1) - (place.get(b.rule) ?? -1),
  );
}

/** What WCAG asks of the looks of links, which are the book's and not one link's. */
function findLooks(looks: LinkLooks): BookFinding[] {
  return kindNames.flatMap((kind) => {
    const { isReadable, isTold, onPaper, besideText } = judgeLook(looks[kind]);
    const about = {
      severity: "fix" as const,
      subject: `look-${kind}`,
      chapter: null,
      link: null,
      before: "",
      after: "",
      mend: null,
      isSure: false,
    };
    const kinds = kind === "place" ? "links in this book" : `${kind} links`;
    return [
      ...(isReadable
        ? []
        : [
            {
              ...about,
              rule: "look-unreadable",
              title: "The look of links is hard to read",
              source: "WCAG 2.2 SC 1.4.3",
              message: `The look of ${kinds} has a contrast of ${onPaper.toFixed(2)} with the paper; 4.5 is asked. Choose a darker colour in Link looks.`,
            },
          ]),
      ...(isTold
        ? []
        : [
            {
              ...about,
              rule: "look-untold",
              title: "Links are not told from the text",
              source: "WCAG 2.2 SC 1.4.1, techniques G182 and G183, failure F73",
              message: `The look of ${kinds} has no underline and a contrast of ${besideText.toFixed(2)} with the text; 3 is asked. Underline them, or choose another colour in Link looks.`,
            },
          ]),
    ];
  });
}

function wordsAround(doc: Node, link: LinkUse): { before: string; after: string } {
  const [first] = link.parts;
  // One letter more than are shown tells whether there are more.
  const { before, after } = textBeside(doc, first!, lettersAround + 1, " ");
  return {
    // Cut between words.
    before:
      before.length > lettersAround ? `… ${before.slice(-lettersAround).replace(/^\S*\s+/, "")}` : before,
    after: after.length > lettersAround ? `${after.slice(0, lettersAround).replace(/\s+\S*$/, "")} …` : after,
  };
}
