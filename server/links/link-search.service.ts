import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { codeExpression, patternFromExamples } from "@vennet/core/manuscript/codes";
import { findMentions, findPattern, type Mention } from "@vennet/core/manuscript/mentions";
import type { Node } from "prosemirror-model";
import { DataSource, IsNull } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { Problem } from "../errors/problem.ts";
import type { MentionAnswer, SearchAnswer, SearchRequest } from "./links.dto.ts";

/** Looks through a book's documents for a phrase, or for item codes like given examples. */
@Injectable()
export class LinkSearchService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** Finds mentions of a phrase, or codes, in all chapters of a book. */
  async search(bookId: string, request: SearchRequest): Promise<SearchAnswer> {
    const { pattern, find } = finder(request);
    const chapters = await this.database.manager.find(Chapter, {
      where: {
        bookId,
        deletedAt: IsNull(),
        ...(request.chapterId === undefined ? {} : { id: request.chapterId }),
      },
      order: { role: "ASC", position: "ASC" },
    });
    return {
      pattern,
      chapters: chapters
        .map(({ id, title, revision, document }) => ({
          chapterId: id,
          chapter: title,
          revision,
          mentions: find(readChapter(document)).map(answer),
        }))
        .filter(({ mentions }) => mentions.length > 0),
    };
  }
}

function finder(request: SearchRequest): { pattern: string | null; find: (doc: Node) => Mention[] } {
  const { phrase, examples, wholeWords = true, matchCase = false } = request;
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
