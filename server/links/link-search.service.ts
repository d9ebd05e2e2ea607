import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, IsNull } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { lettersOf } from "../workers/long-texts.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import type { SearchAnswer, SearchRequest } from "./links.dto.ts";

/** Looks through a book's documents for a phrase, for item codes like given examples, or for addresses without a link. */
@Injectable()
export class LinkSearchService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly workers: WorkerPools,
  ) {}

  /** Finds mentions of a phrase, codes, or addresses without a link in all chapters of a book. */
  async search(bookId: string, request: SearchRequest): Promise<SearchAnswer> {
    const chapters = await this.database.manager.find(Chapter, {
      where: {
        bookId,
        deletedAt: IsNull(),
        ...(request.chapterId === undefined ? {} : { id: request.chapterId }),
      },
      order: { position: "ASC" },
    });
    const texts = chapters.map(({ id, title, revision, document }) => ({ id, title, revision, document }));
    return this.workers.runBySize("searchChapters", lettersOf(texts), { chapters: texts, request });
  }
}
