import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { usedPictures, type Book as Manuscript, type PictureFile } from "@vennet/core/manuscript/book";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { completeLooks } from "@vennet/core/manuscript/looks";
import { defaultLayout } from "@vennet/core/manuscript/page-layout";
import { travellingFiles } from "@vennet/core/publish/travelling-files";
import { DataSource, IsNull, type EntityManager } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { FilesService } from "../files/files.service.ts";
import type { Book } from "./book.entity.ts";

/** Assembles a book's manuscript from its chapters, files and settings. */
@Injectable()
export class ManuscriptsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
  ) {}

  /** The book's text as the exports take it; its pictures are read apart, since most uses want none. */
  async of(book: Book, manager: EntityManager = this.database.manager): Promise<Manuscript> {
    const rows = await manager.find(Chapter, {
      where: { bookId: book.id, deletedAt: IsNull() },
      order: { position: "ASC" },
    });
    return {
      id: book.id,
      title: book.title,
      author: book.author,
      language: book.language,
      modified: book.modifiedAt.toISOString(),
      chapters: [
        ...rows.filter(({ role }) => role === "chapter"),
        ...rows.filter(({ role }) => role === "companion"),
      ].map((row) => ({ id: row.id, role: row.role, doc: readChapter(row.document) })),
      pictures: [],
      files: await this.files.companionFacts(book.id),
      fileBytes: new Map(),
      leavesFiles: false,
      looks: completeLooks(book.looks),
      conventions: book.conventions ?? defaultConventions,
      layout: book.layout ?? defaultLayout,
    };
  }

  /** The bytes of the pictures that a manuscript uses. */
  async picturesOf(manuscript: Manuscript): Promise<PictureFile[]> {
    const used = usedPictures(manuscript);
    const files = (await this.files.pictures(manuscript.id)).filter(({ id }) => used.has(id));
    return Promise.all(
      files.map(async ({ id, mediaType }) => ({
        id,
        mediaType: mediaType as PictureFile["mediaType"],
        bytes: await this.files.read(id),
      })),
    );
  }

  /** The bytes of the companion files to which a manuscript's links lead. */
  async fileBytesOf(manuscript: Manuscript): Promise<Map<string, Uint8Array>> {
    const ids = [...travellingFiles(manuscript).keys()];
    return new Map(
      await Promise.all(ids.map(async (id) => [id, await this.files.read(id)] as [string, Uint8Array])),
    );
  }
}
