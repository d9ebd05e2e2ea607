import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { countWordsIn, emptyChapter } from "@vennet/core/manuscript/chapter";
import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { DataSource, IsNull, Not, type EntityManager } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { columns } from "../database/columns.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { Chapter } from "./chapter.entity.ts";
import type {
  ChangeChapterRequest,
  ChapterAnswer,
  ChapterListingAnswer,
  ChapterSavedAnswer,
  NewChapterRequest,
} from "./chapters.dto.ts";
import { keepVersion } from "../history/keep-version.ts";
import { chapterOrder, linkCount } from "../ledger/reading-order.ts";
import { insertLedger, writeLedger } from "../ledger/write-ledger.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { deriveChapter, type DerivedChapter } from "./derived-chapter.ts";
import { chapterJson } from "./read-part.ts";

/** Each is looked for among those that are told with it. */
const orderedAtOnce = 500;

/** Chapters as their author sees and changes them. */
@Injectable()
export class ChaptersService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly workers: WorkerPools,
  ) {}

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
      `SELECT c.id, c.title, c.role, c.revision, c.words, ${linkCount} AS links
         FROM chapter c WHERE c.bookId = ? AND c.deletedAt IS NULL ORDER BY ${chapterOrder.join(", ")}`,
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
    { ledger, ...text }: DerivedChapter,
    role: ChapterRole = "chapter",
  ): Promise<Chapter> {
    const chapter = manager.create(Chapter, {
      id: randomUUID(),
      bookId,
      position,
      role,
      revision: 1,
      deletedAt: null,
      ...text,
      ...ledger.hashes,
    });
    await manager.insert(Chapter, columns<Chapter>(chapter));
    await insertLedger(manager, chapter, ledger);
    return chapter;
  }

  /** Puts new chapters behind those of a book, within a transaction that `changing` began. */
  async append(
    manager: EntityManager,
    bookId: string,
    texts: readonly DerivedChapter[],
    roles: readonly ChapterRole[],
  ): Promise<void> {
    const ids = await this.order(manager, bookId);
    const inOrder = await this.countInOrder(manager, bookId);
    const added = { inOrder: [] as string[], apart: [] as string[] };
    for (const [i, text] of texts.entries()) {
      const { id } = await this.insert(manager, bookId, inOrder + i, text, roles[i]);
      (roles[i] === "companion" ? added.apart : added.inOrder).push(id);
    }
    ids.splice(inOrder, 0, ...added.inOrder);
    ids.push(...added.apart);
    await this.writeOrder(manager, ids);
  }

  /**
   * Puts a new chapter behind another one, or first, within a transaction that `changing` began: one of the reading order
   * before the companion pages, one of those behind it.
   */
  async insertBehind(
    manager: EntityManager,
    bookId: string,
    behind: string | null,
    text: DerivedChapter,
    role: ChapterRole,
  ): Promise<Chapter> {
    const ids = await this.order(manager, bookId);
    const inOrder = await this.countInOrder(manager, bookId);
    const wanted = behind === null ? 0 : ids.indexOf(behind) + 1;
    const position = role === "companion" ? Math.max(wanted, inOrder) : Math.min(wanted, inOrder);
    const chapter = await this.insert(manager, bookId, position, text, role);
    ids.splice(position, 0, chapter.id);
    await this.writeOrder(manager, ids);
    return chapter;
  }

  /** Adds a chapter behind the others. */
  async add(bookId: string, request: NewChapterRequest): Promise<ChapterAnswer> {
    const text = request.document
      ? await this.readSent(request.document)
      : deriveChapter(emptyChapter(request.title));
    return this.changing(bookId, async (manager) => {
      const ids = await this.order(manager, bookId);
      // A new chapter comes after the others, before the companion pages.
      const last = request.role === "companion" ? ids.length : await this.countInOrder(manager, bookId);
      const position = Math.min(request.position ?? last, last);
      const chapter = await this.insert(manager, bookId, position, text, request.role);
      ids.splice(position, 0, chapter.id);
      await this.writeOrder(manager, ids);
      return answer(chapter);
    });
  }

  /**
   * Saves a chapter's document, unless it was saved by somebody else since the revision that it was made
   * from: then nothing is written, and the author is to be shown both texts.
   */
  async save(bookId: string, id: string, revision: number, json: unknown): Promise<ChapterSavedAnswer> {
    const text = await this.readSent(json);
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
      if (kindOfPart(chapter.document) !== kindOfPart(text.document))
        throw new Problem(
          422,
          "other-part",
          "What was sent is the text of something else than what it is to become.",
        );
      const { linksHash, placesHash } = chapter;
      const saved = await this.write(manager, chapter, text);
      const changesLinks = linksHash !== chapter.linksHash || placesHash !== chapter.placesHash;
      return { revision: saved, changesLinks };
    });
  }

  /** Gives a chapter another title, as a change of its text, or makes something else of it in the reading order. */
  async change(bookId: string, id: string, { title, role }: ChangeChapterRequest): Promise<ChapterAnswer> {
    return this.changing(bookId, async (manager) => {
      const chapter = await this.find(manager, bookId, id, true);
      if (role !== undefined) {
        if (chapter.role === "companion")
          throw new Problem(
            409,
            "outside-order",
            "A companion page stands outside the reading order, and has no number there. Add a chapter instead.",
            "role",
          );
        await manager.update(Chapter, { id }, { role });
        chapter.role = role;
      }
      if (title === undefined) return answer(chapter);
      const { document } = chapter;
      const input = { document, edit: { kind: "title" as const, title } };
      const edited = await this.workers.runBySize("editChapter", document.length, input);
      if (edited) await this.write(manager, chapter, edited.text);
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
    await this.changing(bookId, async (manager) =>
      this.setPresent(manager, await this.find(manager, bookId, id, true), false),
    );
  }

  /** Takes a chapter out of its book, or puts it back where it was, within a transaction that `changing` began. */
  async setPresent(
    manager: EntityManager,
    { id, bookId, position }: Chapter,
    isThere: boolean,
  ): Promise<void> {
    const ids = isThere ? await this.order(manager, bookId) : [];
    await manager.update(Chapter, { id }, { deletedAt: isThere ? null : new Date() });
    if (!isThere) return;
    ids.splice(Math.min(position, ids.length), 0, id);
    await this.writeOrder(manager, ids);
  }

  /** Puts a deleted chapter back where it was. */
  async restore(bookId: string, id: string): Promise<ChapterAnswer> {
    return this.changing(bookId, async (manager) => {
      const chapter = await manager.findOneBy(Chapter, { id, bookId, deletedAt: Not(IsNull()) });
      if (!chapter) throw notFound("deleted chapter");
      await this.setPresent(manager, chapter, true);
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
    { ledger, ...text }: DerivedChapter,
    keep: "always" | "by time" = "by time",
  ): Promise<number> {
    await keepVersion(manager, chapter, { always: keep === "always" });
    const change = { ...text, ...ledger.hashes, revision: chapter.revision + 1 };
    await manager.update(Chapter, { id: chapter.id }, columns<Chapter>(change));
    await writeLedger(manager, chapter, ledger);
    Object.assign(chapter, change);
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

  /** What is to be kept of a document that somebody sent, which is judged against the schema. */
  readSent(json: unknown): Promise<DerivedChapter> {
    return this.readText(JSON.stringify(json));
  }

  /** What is to be kept of a document that is JSON. */
  readText(text: string): Promise<DerivedChapter> {
    return this.workers.runBySize("deriveChapter", text.length, text);
  }

  private async order(manager: EntityManager, bookId: string): Promise<string[]> {
    const rows = await manager.find(Chapter, {
      where: { bookId, deletedAt: IsNull() },
      order: { position: "ASC" },
      select: { id: true, role: true },
    });
    const isApart = ({ role }: Pick<Chapter, "role">): boolean => role === "companion";
    return [...rows.filter((row) => !isApart(row)), ...rows.filter(isApart)].map(({ id }) => id);
  }

  /** How many chapters and parts stand in the reading order. */
  private countInOrder(manager: EntityManager, bookId: string): Promise<number> {
    return manager.countBy(Chapter, { bookId, deletedAt: IsNull(), role: Not("companion") });
  }

  private async writeOrder(manager: EntityManager, ids: string[]): Promise<void> {
    for (let first = 0; first < ids.length; first += orderedAtOnce) {
      const some = ids.slice(first, first + orderedAtOnce);
      await manager.query("UPDATE chapter SET position = ? + FIELD(id, ?) - 1 WHERE id IN (?)", [
        first,
        some,
        some,
      ]);
    }
  }
}

/** What a part is: of a finished file which page, of a manuscript a chapter. */
function kindOfPart(document: string): string {
  return /^\{"type":"[a-z]+-page","number":\d+,/.exec(document)?.[0] ?? "chapter";
}

/** Whether there is more to a chapter than its title. */
export function isWritten({ title, words }: Pick<Chapter, "title" | "words">): boolean {
  return words > countWordsIn(title);
}

function answer(chapter: Chapter): ChapterAnswer {
  return {
    id: chapter.id,
    title: chapter.title,
    role: chapter.role,
    revision: chapter.revision,
    document: chapterJson(chapter.document),
  };
}
