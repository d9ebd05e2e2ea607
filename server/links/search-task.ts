import { codeExpression, patternFromExamples } from "@vennet/core/manuscript/codes";
import { findBareAddresses } from "@vennet/core/manuscript/bare-addresses";
import { findMentions, findPattern, type Mention } from "@vennet/core/manuscript/mentions";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
import type { Node } from "prosemirror-model";
import { readPart } from "../chapters/read-part.ts";
import { Problem } from "../errors/problem.ts";
import type { MentionAnswer, SearchAnswer, SearchRequest } from "./links.dto.ts";

/**
 * Finds mentions of a phrase, codes like given examples, or addresses that are no links, in chapters.
 * @throws Problem where the request does not say what to look for
 */
export function run({
  chapters,
  request,
}: {
  chapters: { id: string; title: string; revision: number; document: string }[];
  request: SearchRequest;
}): SearchAnswer {
  const { pattern, find } = finder(request);
  const found: SearchAnswer["chapters"] = [];
  let left = request.limit ?? Infinity;
  for (const { id, title, revision, document } of chapters) {
    if (left === 0) break;
    const part = readPart(document);
    // The words of a finished file are not the author's to link by themselves.
    if (!(part instanceof ManuscriptChapter)) continue;
    const mentions = find(part.content).slice(0, left).map(answer);
    left -= mentions.length;
    if (mentions.length > 0) found.push({ chapterId: id, chapter: title, revision, mentions });
  }
  return { pattern, chapters: found };
}

function finder(request: SearchRequest): { pattern: string | null; find: (doc: Node) => Mention[] } {
  const { phrase, examples, addresses = false, wholeWords = true, matchCase = false } = request;
  if (addresses) return { pattern: null, find: findBareAddresses };
  if (examples) {
    const pattern = patternFromExamples(examples);
    if (pattern === null) {
      throw new Problem(
        422,
        "no-pattern",
        "These examples are built differently, so no pattern fits them all. Give codes of one build, such as R3 and R12.",
        "examples",
      );
    }
    const expression = codeExpression(pattern);
    return { pattern, find: (doc) => findPattern(doc, expression) };
  }
  if (!phrase?.trim()) throw new Problem(400, "no-phrase", "Say which words to look for.", "phrase");
  return { pattern: null, find: (doc) => findMentions(doc, phrase, { wholeWords, matchCase }) };
}

function answer({ link, ...mention }: Mention): MentionAnswer {
  if (!link) return { ...mention, link: null };
  const { id, text, from, to, destination } = link;
  return { ...mention, link: { id, text, from, to, destination: { ...destination } } };
}
