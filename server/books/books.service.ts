import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { emptyChapter } from "@vennet/core/manuscript/chapter";
import { usualFonts } from "@vennet/core/manuscript/book-fonts";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { completeLooks } from "@vennet/core/manuscript/looks";
import { defaultLayout } from "@vennet/core/manuscript/page-layout";
import { DataSource, type EntityManager } from "typeorm";
import { columns } from "../database/columns.ts";
import type { Account } from "../accounts/account.entity.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { deriveChapter } from "../chapters/derived-chapter.ts";
import { nextRun } from "../reach/next-run.ts";
import { Book } from "./book.entity.ts";
import type {
  BookAnswer,
  BookStatesAnswer,
  ChangeBookRequest,
  LinkStatesAnswer,
  NewBookRequest,
} from "./books.dto.ts";
import { linkCount } from "../ledger/reading-order.ts";
import { linksInUse, withOutcomes } from "../ledger/rows-in-use.ts";

const inExports = new Set(["title", "author", "language", "looks", "conventions", "layout", "fonts"]);

/** The books on the Shelf, and their settings. */
@Injectable()
export class BooksService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
    private readonly quota: QuotaService,
  ) {}

  /** The books that an account may open. */
  async list(account: Account): Promise<BookAnswer[]> {
    const books = await this.database.manager.find(Book, {
      where: { accountId: account.id },
      order: { modifiedAt: "DESC" },
    });
    return this.answers(books);
  }

  /** The states of the web links of an account's books that have any: each link is looked at, so nothing waits for them. */
  async states(account: Account): Promise<BookStatesAnswer[]> {
    const rows: { bookId: string; state: keyof LinkStatesAnswer; count: string }[] =
      await this.database.query(
        `SELECT u.bookId, COALESCE(o.state, 'unchecked') AS state, COUNT(*) AS count
           FROM book b JOIN (${linksInUse}) ON u.bookId = b.id ${withOutcomes}
           WHERE b.accountId = ? AND b.deletedAt IS NULL AND u.kind = 'web' GROUP BY u.bookId, state`,
        [account.id],
      );
    const answers = new Map<string, BookStatesAnswer>();
    for (const { bookId, state, count } of rows) {
      const answer = answers.get(bookId) ?? { bookId, webLinks: noLinks() };
      answer.webLinks[state] = Number(count);
      answers.set(bookId, answer);
    }
    return [...answers.values()];
  }

  /** A book as the interface tells it, with its counts. */
  async answer(book: Book): Promise<BookAnswer> {
    return (await this.answers([book]))[0]!;
  }

  /** Begins a book with one empty chapter. */
  async create(account: Account, request: NewBookRequest): Promise<BookAnswer> {
    await this.quota.assertBook(account.id);
    const book = await this.database.transaction(async (manager) => {
      const made = await this.insert(manager, account, request.title, request.language ?? "en");
      await this.chapters.insert(manager, made.id, 0, deriveChapter(emptyChapter("Chapter 1")));
      return made;
    });
    return this.answer(book);
  }

  /** Changes what is given of a book's settings, and nothing else: two changes at once both stay. */
  async change(book: Book, request: ChangeBookRequest): Promise<BookAnswer> {
    const given = Object.entries(request).filter(([, value]) => value !== undefined);
    const change: Partial<Book> = Object.fromEntries(given) as Partial<Book>;
    // What exports carry has a date; what is only chosen for them has none.
    if (given.some(([key]) => inExports.has(key))) change.modifiedAt = new Date();
    if (request.schedule !== undefined)
      change.nextRunAt = request.schedule === null ? null : nextRun(request.schedule, new Date());
    const { manager } = this.database;
    if (Object.keys(change).length > 0) await manager.update(Book, { id: book.id }, columns(change));
    return this.answer(await manager.findOneByOrFail(Book, { id: book.id }));
  }

  /** Puts a new book on an author's Shelf, within a transaction that its caller began. */
  async insert(
    manager: EntityManager,
    account: Pick<Account, "id" | "name">,
    title: string,
    language: string,
    id: string = randomUUID(),
  ): Promise<Book> {
    const book = manager.create(Book, {
      id,
      accountId: account.id,
      title,
      author: account.name,
      language,
      audience: "anyone",
      freshHours: 24,
      schedule: null,
      nextRunAt: null,
      modifiedAt: new Date(),
    });
    await manager.insert(Book, columns<Book>(book));
    return book;
  }

  private async answers(
    books: Book[],
    manager: EntityManager = this.database.manager,
  ): Promise<BookAnswer[]> {
    if (books.length === 0) return [];
    const ids = books.map((book) => book.id);
    const counts: { bookId: string; chapters: string; words: string; links: string }[] = await manager.query(
      `SELECT c.bookId, COUNT(*) AS chapters, SUM(c.words) AS words, SUM(${linkCount}) AS links
         FROM chapter c WHERE c.bookId IN (?) AND c.deletedAt IS NULL GROUP BY c.bookId`,
      [ids],
    );
    return books.map((book) => {
      const counted = counts.find((row) => row.bookId === book.id);
      return {
        id: book.id,
        title: book.title,
        author: book.author,
        language: book.language,
        modifiedAt: book.modifiedAt.toISOString(),
        finished: book.finished && {
          format: book.finished.format,
          fileName: book.finished.fileName,
          pages: book.finished.pages,
          isTagged: book.finished.isTagged,
          isSigned: book.finished.isSigned,
          hasBrokenTable: book.finished.hasBrokenTable ?? false,
          password: book.finished.password ?? null,
        },
        looks: completeLooks(book.looks),
        conventions: book.conventions ?? defaultConventions,
        layout: book.layout ?? defaultLayout,
        fonts: book.fonts ?? usualFonts,
        presets: book.presets ?? [],
        audience: book.audience,
        freshHours: book.freshHours,
        schedule: book.schedule,
        nextRunAt: book.nextRunAt?.toISOString() ?? null,
        chapters: Number(counted?.chapters ?? 0),
        words: Number(counted?.words ?? 0),
        links: Number(counted?.links ?? 0),
      };
    });
  }
}

function noLinks(): LinkStatesAnswer {
  return { sound: 0, moved: 0, guarded: 0, broken: 0, unsure: 0, unchecked: 0 };
}
