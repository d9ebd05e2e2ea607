import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import {
  chapterTitle,
  countWords,
  countWordsIn,
  emptyChapter,
  readChapter,
  withTitle,
  writeChapter,
} from "@vennet/core/manuscript/chapter";
import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";
import type { Node } from "prosemirror-model";
import { DataSource, IsNull, Not, type EntityManager } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { columns } from "../database/columns.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { Chapter } from "./chapter.entity.ts";
import type { ChapterAnswer, ChapterListingAnswer, NewChapterRequest, SavedAnswer } from "./chapters.dto.ts";
import { keepVersion } from "../history/keep-version.ts";
import { rebuildLedger } from "../ledger/rebuild-ledger.ts";

/** Chapters as their author sees and changes them. */
@Injectable()
export class ChaptersService {
  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** The chapters of a book in their order, without their texts. */
  async list(bookId: string): Promise<ChapterListingAnswer[]> {
    const rows: {
      id: string;
      title: string;
      role: ChapterRole;
      revision: number;
      words: number;
      links: string;
    }[] = await this.database.query(
      `SELECT c.id, c.title, c.role, c.revision, c.words, (SELECT COUNT(*) FROM link_use u WHERE u.chapterId = c.id) AS links
         FROM chapter c WHERE c.bookId = ? AND c.deletedAt IS NULL ORDER BY c.role = 'companion', c.position`,
      [bookId],
    );
    return rows.map((row) => ({ ...row, links: Number(row.links), written: isWritten(row) }));
  }

  /**
   * A chapter with its text.
   * @throws Problem 404 where the book has no such chapter
   */
  async read(bookId: string, id: string): Promise<ChapterAnswer> {
    return answer(await this.find(this.database.manager, bookId, id));
  }

  /** Puts a new chapter into a book within a transaction that its caller began. */
  async insert(
    manager: EntityManager,
    bookId: string,
    position: number,
    doc: Node,
    role: ChapterRole = "chapter",
  ): Promise<Chapter> {
    const chapter = manager.create(Chapter, {
      id: randomUUID(),
      bookId,
      position,
      role,
      revision: 1,
      deletedAt: null,
      ...derived(doc),
    });
    await manager.insert(Chapter, columns<Chapter>(chapter));
    await rebuildLedger(manager, chapter, doc);
    return chapter;
  }

  /** Puts new chapters behind those of a book, within a transaction that `changing` began. */
  async append(manager: EntityManager, bookId: string, docs: readonly Node[]): Promise<void> {
    const ids = await this.order(manager, bookId);
    const chapters = await manager.countBy(Chapter, { bookId, deletedAt: IsNull(), role: "chapter" });
    const added: string[] = [];
    for (const [i, doc] of docs.entries())
      added.push((await this.insert(manager, bookId, chapters + i, doc)).id);
    ids.splice(chapters, 0, ...added);
    await this.writeOrder(manager, ids);
  }

  /** Adds a chapter behind the others. */
  async add(bookId: string, request: NewChapterRequest): Promise<ChapterAnswer> {
    const doc = request.document ? readChapter(request.document) : emptyChapter(request.title);
    return this.changing(bookId, async (manager) => {
      const ids = await this.order(manager, bookId);
      // A new chapter comes after the others, before the companion pages.
      const chapters = await manager.countBy(Chapter, { bookId, deletedAt: IsNull(), role: "chapter" });
      const last = request.role === "companion" ? ids.length : chapters;
      const position = Math.min(request.position ?? last, last);
      const chapter = await this.insert(manager, bookId, position, doc, request.role);
      ids.splice(position, 0, chapter.id);
      await this.writeOrder(manager, ids);
      return answer(chapter);
    });
  }

  /**
   * Saves a chapter's document, unless it was saved by somebody else since the revision that it was made
   * from: then nothing is written, and the author is to be shown both texts.
   */
  async save(bookId: string, id: string, revision: number, json: unknown): Promise<SavedAnswer> {
    const doc = readChapter(json);
    return this.changing(bookId, async (manager) => {
      const chapter = await this.find(manager, bookId, id, true);
      if (chapter.revision !== revision) {
        throw new Problem(
          409,
          "old-revision",
          "This chapter was changed somewhere else in the meantime. Both texts are kept; choose between them.",
          "revision",
        );
      }
      return { revision: await this.write(manager, chapter, doc) };
    });
  }

  /** Gives a chapter another title, as a change of its text. */
  async rename(bookId: string, id: string, title: string): Promise<ChapterAnswer> {
    return this.changing(bookId, async (manager) => {
      const chapter = await this.find(manager, bookId, id, true);
      await this.write(manager, chapter, withTitle(readChapter(chapter.document), title));
      return answer(chapter);
    });
  }

  /**
   * Puts the chapters of a book into another order.
   * @throws Problem where the ids are not exactly those of its chapters
   */
  async reorder(bookId: string, ids: string[]): Promise<ChapterListingAnswer[]> {
    await this.changing(bookId, async (manager) => {
      const present = await this.order(manager, bookId);
      if ([...present].sort().join() !== [...ids].sort().join()) {
        throw new Problem(
          409,
          "chapters-changed",
          "The list of chapters has changed in the meantime. Look at it again, then reorder.",
          "chapters",
        );
      }
      await this.writeOrder(manager, ids);
    });
    return this.list(bookId);
  }

  /** Takes a chapter out of its book. It is kept, so that this can be undone. */
  async remove(bookId: string, id: string): Promise<void> {
    await this.changing(bookId, async (manager) => {
      const chapter = await this.find(manager, bookId, id, true);
      await manager.update(Chapter, { id: chapter.id }, { deletedAt: new Date() });
    });
  }

  /** Puts a deleted chapter back where it was. */
  async restore(bookId: string, id: string): Promise<ChapterAnswer> {
    return this.changing(bookId, async (manager) => {
      const chapter = await manager.findOneBy(Chapter, { id, bookId, deletedAt: Not(IsNull()) });
      if (!chapter) throw notFound("deleted chapter");
      const ids = await this.order(manager, bookId);
      ids.splice(Math.min(chapter.position, ids.length), 0, id);
      await manager.update(Chapter, { id }, { deletedAt: null });
      await this.writeOrder(manager, ids);
      return answer(chapter);
    });
  }

  /**
   * Writes a chapter's new text within a transaction that `changing` began, and keeps the old one as a
   * version: always where `keep` says so, else now and then.
   */
  async write(
    manager: EntityManager,
    chapter: Chapter,
    doc: Node,
    keep: "always" | "by time" = "by time",
  ): Promise<number> {
    await keepVersion(manager, chapter, { always: keep === "always" });
    const change = { ...derived(doc), revision: chapter.revision + 1 };
    await manager.update(Chapter, { id: chapter.id }, columns<Chapter>(change));
    Object.assign(chapter, change);
    await rebuildLedger(manager, chapter, doc);
    return chapter.revision;
  }

  /** Every change of a book's text sets the book's date, which the exports carry. */
  changing<T>(bookId: string, work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.database.transaction(async (manager) => {
      // Two writers of one book wait for each other here, so that order and ledger stay whole.
      await manager.update(Book, { id: bookId }, { modifiedAt: new Date() });
      return work(manager);
    });
  }

  /** @throws Problem where the book has no such chapter, or it is deleted */
  async find(manager: EntityManager, bookId: string, id: string, lock = false): Promise<Chapter> {
    const chapter = await manager.findOne(Chapter, {
      where: { id, bookId, deletedAt: IsNull() },
      ...(lock ? { lock: { mode: "pessimistic_write" as const } } : {}),
    });
    if (!chapter) throw notFound("chapter");
    return chapter;
  }

  /** A chapter locked for writing; null where it is deleted. */
  findPresent(manager: EntityManager, bookId: string, id: string): Promise<Chapter | null> {
    return manager.findOne(Chapter, {
      where: { id, bookId, deletedAt: IsNull() },
      lock: { mode: "pessimistic_write" },
    });
  }

  private async order(manager: EntityManager, bookId: string): Promise<string[]> {
    const rows = await manager.find(Chapter, {
      where: { bookId, deletedAt: IsNull() },
      order: { position: "ASC" },
      select: { id: true, role: true },
    });
    const of = (role: ChapterRole): string[] => rows.filter((row) => row.role === role).map(({ id }) => id);
    return [...of("chapter"), ...of("companion")];
  }

  private async writeOrder(manager: EntityManager, ids: string[]): Promise<void> {
    for (const [position, id] of ids.entries()) await manager.update(Chapter, { id }, { position });
  }
}

/** Whether there is more to a chapter than its title. */
export function isWritten({ title, words }: Pick<Chapter, "title" | "words">): boolean {
  return words > countWordsIn(title);
}

function derived(doc: Node): Pick<Chapter, "title" | "document" | "words"> {
  return { title: chapterTitle(doc).slice(0, 1000), document: writeChapter(doc), words: countWords(doc) };
}

function answer(chapter: Chapter): ChapterAnswer {
  return {
    id: chapter.id,
    title: chapter.title,
    role: chapter.role,
    revision: chapter.revision,
    document: chapter.document as unknown as Record<string, unknown>,
  };
}
