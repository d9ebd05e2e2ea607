import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { usedPictures, type Book as Manuscript, type PictureFile } from "@vennet/core/manuscript/book";
import { usualConventions } from "@vennet/core/manuscript/conventions";
import { usualLayout } from "@vennet/core/manuscript/page-layout";
import { travellingFiles } from "@vennet/core/publish/travelling-files";
import { usualLooks } from "@vennet/core/manuscript/looks";
import { emptyChapter, readChapter } from "@vennet/core/manuscript/chapter";
import { DataSource, IsNull, type EntityManager } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { Acceptance } from "../checks/acceptance.entity.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { LinkUse } from "../chapters/link-use.entity.ts";
import { Place } from "../chapters/place.entity.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import { uploadedName, type UploadedFile } from "../files/uploaded-file.ts";
import { FileChunk, StoredFile } from "../files/stored-file.entity.ts";
import { Export } from "../exports/export.entity.ts";
import { Job } from "../jobs/job.entity.ts";
import { BookStep } from "../history/book-step.entity.ts";
import { ChapterVersion } from "../history/chapter-version.entity.ts";
import { nextRun, ScheduleError } from "../reach/next-run.ts";
import { ReachAnswer } from "../reach/reach-answer.entity.ts";
import { ReachOutcome } from "../reach/reach-outcome.entity.ts";
import { ReachRun } from "../reach/reach-run.entity.ts";
import { Workshop } from "../workshop/workshop.ts";
import { Book } from "./book.entity.ts";
import type {
  BookAnswer,
  ChangeBookRequest,
  ImportAnswer,
  ImportRequest,
  LinkStatesAnswer,
  NewBookRequest,
} from "./books.contract.ts";

const inExports = new Set(["title", "author", "language", "looks", "conventions", "layout"]);

@Injectable()
export class BooksService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
    private readonly files: FilesService,
    private readonly workshop: Workshop,
  ) {}

  /** The author's own book. Another author's answers as if there were none. */
  async own(account: Account, bookId: string): Promise<Book> {
    const book = await this.database.manager.findOneBy(Book, { id: bookId, accountId: account.id });
    if (!book) throw notFound("book");
    return book;
  }

  async list(account: Account): Promise<BookAnswer[]> {
    const books = await this.database.manager.find(Book, {
      where: { accountId: account.id },
      order: { modifiedAt: "DESC" },
    });
    return this.answers(books);
  }

  async answer(book: Book): Promise<BookAnswer> {
    return (await this.answers([book]))[0]!;
  }

  async create(account: Account, request: NewBookRequest): Promise<BookAnswer> {
    const book = await this.database.transaction(async (manager) => {
      const made = await this.insert(manager, account, request.title, request.language ?? "en");
      await this.chapters.insert(manager, made.id, 0, emptyChapter("Chapter 1"));
      return made;
    });
    return this.answer(book);
  }

  async change(book: Book, request: ChangeBookRequest): Promise<BookAnswer> {
    const given = Object.entries(request).filter(([, value]) => value !== undefined);
    Object.assign(book, Object.fromEntries(given));
    // What exports carry has a date; what is only chosen for them has none.
    if (given.some(([key]) => inExports.has(key))) book.modifiedAt = new Date();
    if (request.schedule !== undefined) book.nextRunAt = plannedAfter(request.schedule, new Date());
    return this.answer(await this.database.manager.save(Book, book));
  }

  /** Deletes a book with all that belongs to it. */
  async remove(book: Book): Promise<void> {
    await this.database.transaction(async (manager) => {
      await manager.query("DELETE a FROM reach_ask a JOIN job j ON j.id = a.jobId WHERE j.bookId = ?", [
        book.id,
      ]);
      const files = await manager.find(StoredFile, { where: { bookId: book.id }, select: { id: true } });
      for (const { id } of files) await manager.delete(FileChunk, { fileId: id });
      for (const entity of [
        StoredFile,
        Export,
        ReachOutcome,
        ReachAnswer,
        ReachRun,
        Job,
        LinkUse,
        Place,
        ChapterVersion,
        BookStep,
        Acceptance,
        Chapter,
      ]) {
        await manager.delete(entity, { bookId: book.id });
      }
      await manager.delete(Book, { id: book.id });
    });
  }

  /** Brings a Markdown file in as a book, with the pictures that were sent beside it. */
  async import(
    account: Account,
    file: UploadedFile | undefined,
    pictures: UploadedFile[],
    request: ImportRequest,
  ): Promise<ImportAnswer> {
    if (!file) throw new Problem(400, "no-file", "Choose a Markdown file to bring in.", "manuscript");
    const fileName = uploadedName(file);
    const markdown = decode(file.buffer, fileName);
    const fileTitle = fileName.replace(/\.[^.]*$/, "");
    const bookId = randomUUID();
    return this.database.transaction(async (manager) => {
      const stored: Record<string, string> = {};
      for (const picture of pictures) {
        const name = uploadedName(picture);
        stored[name] = (await this.files.storePicture(bookId, name, picture.buffer, manager)).id;
      }
      const imported = await this.workshop.run("importMarkdown", {
        markdown,
        fallbackTitle: request.title || fileTitle || "Untitled",
        baseAddress: request.baseAddress ?? null,
        pictures: stored,
      });
      const book = await this.insert(
        manager,
        account,
        (request.title || imported.title).slice(0, 500),
        "en",
        bookId,
      );
      for (const [position, chapter] of imported.chapters.entries()) {
        await this.chapters.insert(manager, book.id, position, readChapter(chapter));
      }
      return { book: (await this.answers([book], manager))[0]!, leftOut: imported.leftOut };
    });
  }

  /** The book's text as the exports take it; its pictures are read apart, since most uses want none. */
  async manuscript(book: Book): Promise<Manuscript> {
    const rows = await this.database.manager.find(Chapter, {
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
      looks: book.looks ?? usualLooks,
      conventions: book.conventions ?? usualConventions,
      layout: book.layout ?? usualLayout,
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

  private async insert(
    manager: EntityManager,
    account: Account,
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
    return manager.save(Book, book);
  }

  private async answers(
    books: Book[],
    manager: EntityManager = this.database.manager,
  ): Promise<BookAnswer[]> {
    if (books.length === 0) return [];
    const ids = books.map((book) => book.id);
    const texts: { bookId: string; chapters: string; words: string }[] = await manager.query(
      "SELECT bookId, COUNT(*) AS chapters, SUM(words) AS words FROM chapter WHERE bookId IN (?) AND deletedAt IS NULL GROUP BY bookId",
      [ids],
    );
    const links: { bookId: string; kind: string; state: keyof LinkStatesAnswer; count: string }[] =
      await manager.query(
        `SELECT u.bookId, u.kind, COALESCE(o.state, 'unchecked') AS state, COUNT(*) AS count
       FROM link_use u JOIN chapter c ON c.id = u.chapterId AND c.deletedAt IS NULL
       LEFT JOIN reach_outcome o ON o.bookId = u.bookId AND o.destinationHash = u.destinationHash
       WHERE u.bookId IN (?) GROUP BY u.bookId, u.kind, state`,
        [ids],
      );
    return books.map((book) => {
      const text = texts.find((row) => row.bookId === book.id);
      const own = links.filter((row) => row.bookId === book.id);
      const webLinks: LinkStatesAnswer = {
        sound: 0,
        moved: 0,
        guarded: 0,
        broken: 0,
        unsure: 0,
        unchecked: 0,
      };
      for (const row of own) if (row.kind === "web") webLinks[row.state] += Number(row.count);
      return {
        id: book.id,
        title: book.title,
        author: book.author,
        language: book.language,
        modifiedAt: book.modifiedAt.toISOString(),
        looks: book.looks ?? usualLooks,
        conventions: book.conventions ?? usualConventions,
        layout: book.layout ?? usualLayout,
        presets: book.presets ?? [],
        audience: book.audience,
        freshHours: book.freshHours,
        schedule: book.schedule,
        nextRunAt: book.nextRunAt?.toISOString() ?? null,
        chapters: Number(text?.chapters ?? 0),
        words: Number(text?.words ?? 0),
        links: own.reduce((sum, row) => sum + Number(row.count), 0),
        webLinks,
      };
    });
  }
}

function plannedAfter(schedule: string | null, now: Date): Date | null {
  try {
    return schedule === null ? null : nextRun(schedule, now);
  } catch (error) {
    if (error instanceof ScheduleError) throw new Problem(422, error.code, error.message, "schedule");
    throw error;
  }
}

function decode(bytes: Buffer, name: string): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new Problem(
      415,
      "encoding",
      `“${name}” is not text in UTF-8. Save it as UTF-8 Markdown and bring it again.`,
      "manuscript",
    );
  }
}
