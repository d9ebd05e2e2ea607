import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { usualFonts, type BookFonts, type FontFace } from "@vennet/core/manuscript/book-fonts";
import type { PictureFile } from "@vennet/core/manuscript/book";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { completeLooks } from "@vennet/core/manuscript/looks";
import { defaultLayout } from "@vennet/core/manuscript/page-layout";
import { DataSource, IsNull, type EntityManager } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { FilesService } from "../files/files.service.ts";
import type { PlainBook } from "../workers/plain-book.ts";
import type { Book } from "./book.entity.ts";

/** Assembles a book's manuscript from its chapters, files and settings. */
@Injectable()
export class ManuscriptsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
  ) {}

  /** The book's text as the exports take it; its pictures and fonts are read apart, since most uses want none. */
  async of(book: Book, manager: EntityManager = this.database.manager): Promise<PlainBook> {
    const rows = await manager.find(Chapter, {
      where: { bookId: book.id, deletedAt: IsNull() },
      order: { position: "ASC" },
    });
    return {
      ...(await this.frameOf(book)),
      chapters: [
        ...rows.filter(({ role }) => role !== "companion"),
        ...rows.filter(({ role }) => role === "companion"),
      ].map(({ id, role, title, document }) => ({ id, role, title, document })),
    };
  }

  /** A book's text as the exports take it, but without its chapters. */
  async frameOf(book: Book): Promise<Omit<PlainBook, "chapters">> {
    return {
      id: book.id,
      title: book.title,
      author: book.author,
      language: book.language,
      modified: book.modifiedAt.toISOString(),
      pictures: [],
      files: await this.files.companionFacts(book.id),
      fileBytes: new Map(),
      leavesFiles: false,
      looks: completeLooks(book.looks),
      conventions: book.conventions ?? defaultConventions,
      layout: book.layout ?? defaultLayout,
      fonts: book.fonts ?? usualFonts,
      fontFaces: [],
    };
  }

  /** The bytes of a book's pictures; of some of them where they are named. */
  async picturesOf(bookId: string, ids?: readonly string[]): Promise<PictureFile[]> {
    const wanted = ids && new Set(ids);
    const files = (await this.files.pictures(bookId)).filter(({ id }) => wanted?.has(id) ?? true);
    return Promise.all(
      files.map(async ({ id, mediaType }) => ({
        id,
        mediaType: mediaType as PictureFile["mediaType"],
        bytes: await this.files.read(id),
      })),
    );
  }

  /** The faces of the families that a book is set in. */
  async facesOf(bookId: string, fonts: BookFonts): Promise<FontFace[]> {
    const families = new Set(Object.values(fonts).filter((family) => family !== null));
    if (families.size === 0) return [];
    const files = (await this.files.fonts(bookId)).filter(({ font }) => families.has(font.family));
    return Promise.all(
      files.map(async ({ id, mediaType, font }) => ({
        ...font,
        mediaType: mediaType as FontFace["mediaType"],
        bytes: await this.files.read(id),
      })),
    );
  }

  /** The bytes of files by their ids. */
  async fileBytesOf(ids: readonly string[]): Promise<Map<string, Uint8Array>> {
    return new Map(
      await Promise.all(ids.map(async (id) => [id, await this.files.read(id)] as [string, Uint8Array])),
    );
  }
}
