import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { LinkUse } from "../ledger/link-use.entity.ts";
import { notFound } from "../errors/problem.ts";
import { ChapterVersion } from "./chapter-version.entity.ts";
import type { VersionAnswer, VersionListingAnswer } from "./history.dto.ts";
import { keepVersion } from "./keep-version.ts";

/** The versions of a chapter: listed, read, named and brought back. None is ever overwritten. */
@Injectable()
export class VersionsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
  ) {}

  /** The chapter as it is, then its versions, the newest first. */
  async list(bookId: string, chapterId: string): Promise<VersionListingAnswer[]> {
    const { manager } = this.database;
    const current = await this.chapters.find(manager, bookId, chapterId);
    const versions = await manager.find(ChapterVersion, {
      where: { chapterId, bookId },
      order: { createdAt: "DESC", revision: "DESC" },
      select: {
        id: true,
        revision: true,
        title: true,
        words: true,
        links: true,
        name: true,
        createdAt: true,
      },
    });
    const { title, words, revision } = current;
    const links = await manager.countBy(LinkUse, { chapterId });
    return [
      { id: null, revision, title, words, links, name: null, createdAt: null },
      ...versions.map(listing),
    ];
  }

  /** A kept version with its text. */
  async read(bookId: string, chapterId: string, id: string): Promise<VersionAnswer> {
    const version = await this.find(bookId, chapterId, id);
    return { ...listing(version), document: JSON.parse(version.document) as Record<string, unknown> };
  }

  /** Keeps the chapter as it is now under a name, or a text that somebody sets aside. */
  async name(
    bookId: string,
    chapterId: string,
    name: string,
    document?: Record<string, unknown>,
  ): Promise<VersionListingAnswer> {
    const aside = document ? await this.chapters.readSent(document) : null;
    return this.chapters.changing(bookId, async (manager) => {
      const chapter = await this.chapters.find(manager, bookId, chapterId, true);
      const text = aside?.document ?? chapter.document;
      const version = await keepVersion(manager, { ...chapter, document: text }, { name });
      return listing(version!);
    });
  }

  /** Makes a version the chapter's text again; the text that it replaces is kept as a version. */
  async restore(bookId: string, chapterId: string, id: string): Promise<number> {
    const version = await this.find(bookId, chapterId, id);
    const text = await this.chapters.readText(version.document);
    return this.chapters.changing(bookId, async (manager) => {
      const chapter = await this.chapters.find(manager, bookId, chapterId, true);
      return this.chapters.write(manager, chapter, text, "always");
    });
  }

  private async find(bookId: string, chapterId: string, id: string): Promise<ChapterVersion> {
    const version = await this.database.manager.findOneBy(ChapterVersion, { id, bookId, chapterId });
    if (!version) throw notFound("version");
    return version;
  }
}

function listing(version: ChapterVersion): VersionListingAnswer {
  const { id, revision, title, words, links, name, createdAt } = version;
  return { id, revision, title, words, links, name, createdAt: createdAt.toISOString() };
}
