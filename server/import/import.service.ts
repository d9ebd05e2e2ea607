import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { LeftOut } from "@vennet/core/import/left-out";
import { DataSource, In, LessThan, type EntityManager } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { BooksService } from "../books/books.service.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService, pictureType } from "../files/files.service.ts";
import { judgeMediaType, sampleSize } from "../files/media-type.ts";
import { receivedAt, type ReceivedFile } from "../files/receive.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { uploadedName, type UploadedFile } from "../files/uploaded-file.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import type { Tasks } from "../workers/tasks.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import type { ImportAnswer, ImportRequest } from "./import.dto.ts";

/** All that an import needs; what was sent waits in the database. */
interface ImportInput {
  accountId: string;
  authorName: string;
  /** The ids of the files that were sent. */
  manuscript: string;
  pictures: string[];
  fileName: string;
  title: string | null;
  baseAddress: string | null;
}

interface ImportOutput {
  bookId: string;
  chapters: number;
  leftOut: LeftOut[];
}

type Arrived = Tasks["importManuscript"]["output"];

/** What was sent for an import that nobody ended is swept away after this long. */
const sweptAfterMs = 24 * 60 * 60_000;

/** Brings manuscripts in, as books of their own or as new chapters of one: read first, then written at once. */
@Injectable()
export class ImportService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly books: BooksService,
    private readonly chapters: ChaptersService,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
    private readonly jobs: JobsService,
    private readonly quota: QuotaService,
  ) {
    jobs.define("import", {
      work: (job, report, signal) => this.run(job, report, signal),
      clearAway: (job) => this.drop(job.input as unknown as ImportInput),
    });
  }

  /**
   * Keeps what was sent, and begins to bring it in.
   * @param book the book that it is to be chapters of; null for one of its own
   */
  async begin(
    account: Account,
    book: Book | null,
    manuscript: UploadedFile | undefined,
    pictures: UploadedFile[],
    request: ImportRequest,
  ): Promise<Job> {
    if (!manuscript) throw new Problem(400, "no-file", "Choose a manuscript to bring in.", "manuscript");
    if (!book) await this.quota.assertBook(account.id);
    await this.sweep();
    const received = await receivedAt(manuscript.path);
    const seen: { name: string; file: ReceivedFile; mediaType: string }[] = [];
    for (const picture of pictures) {
      const file = await receivedAt(picture.path);
      const name = uploadedName(picture);
      seen.push({ name, file, mediaType: await pictureType(name, file.sample) });
    }
    const input = await this.database.transaction(async (manager): Promise<ImportInput> => {
      const keep = async (name: string, mediaType: string, file: ReceivedFile): Promise<string> => {
        const about = { bookId: null, name, mediaType, role: "upload" as const };
        return (await this.files.storeReceived(about, file, manager)).id;
      };
      const kept: string[] = [];
      for (const { name, mediaType, file } of seen) kept.push(await keep(name, mediaType, file));
      return {
        accountId: account.id,
        authorName: account.name,
        manuscript: await keep(uploadedName(manuscript), "application/octet-stream", received),
        pictures: kept,
        fileName: uploadedName(manuscript),
        title: request.title || null,
        baseAddress: request.baseAddress ?? null,
      };
    });
    return this.jobs.enqueue(book?.id ?? null, "import", { ...input });
  }

  /** @throws Problem where it is no import, or has not come to its end */
  async result({ kind, output }: Job): Promise<ImportAnswer> {
    if (kind !== "import" || output === null) throw notFound("import");
    const { bookId, chapters, leftOut } = output as unknown as ImportOutput;
    const book = await this.database.manager.findOneBy(Book, { id: bookId });
    if (!book) throw notFound("book");
    return { book: await this.books.answer(book), chapters, leftOut };
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const input = job.input as unknown as ImportInput;
    // Where a stop came after all was written, there is nothing left to do.
    if (job.output) return told(job.output as unknown as ImportOutput);
    const { manager } = this.database;
    report({ done: 0, total: 2, message: "Reading the manuscript" });
    const pictures = await manager.findBy(StoredFile, { id: In(input.pictures) });
    const arrived = await this.workers.run(
      "importManuscript",
      {
        file: { name: input.fileName, bytes: await this.files.read(input.manuscript) },
        fallbackTitle: input.title || input.fileName.replace(/\.[^.]*$/, "") || "Untitled",
        baseAddress: input.baseAddress,
        pictures: Object.fromEntries(pictures.map(({ name, id }) => [name, id])),
      },
      signal,
    );
    signal.throwIfAborted();
    report({ done: 1, total: 2, message: "Keeping it" });
    const output = await this.keep(job, input, arrived);
    report({ done: 2, total: 2, message: "" });
    return told(output);
  }

  /** Writes all that arrived, and that it did, or nothing. */
  private keep(job: Job, input: ImportInput, arrived: Arrived): Promise<ImportOutput> {
    return this.database.transaction(async (manager) => {
      const bookId = job.bookId ?? (await this.newBook(manager, input, arrived));
      if (job.bookId) await manager.update(Book, { id: bookId }, { modifiedAt: new Date() });
      await manager.update(StoredFile, { id: In(input.pictures) }, { bookId, role: "picture" });
      for (const { id, name, bytes } of arrived.pictures)
        await this.files.storePicture(bookId, name, bytes, manager, id);
      for (const { id, name, bytes } of arrived.companions) {
        const { mediaType } = await judgeMediaType(Buffer.from(bytes.subarray(0, sampleSize)), name);
        await this.files.store({ id, bookId, name, mediaType, role: "companion", bytes }, manager);
      }
      await this.chapters.append(manager, bookId, arrived.chapters);
      await manager.delete(StoredFile, { id: input.manuscript });
      const output: ImportOutput = {
        bookId,
        chapters: arrived.chapters.length,
        leftOut: arrived.leftOut,
      };
      const { affected } = await manager.update(
        Job,
        { id: job.id, state: "running" },
        { output: { ...output }, bookId },
      );
      // Cancelled in between: nothing of it is kept.
      if (!affected) throw new Problem(409, "job-ended", "This has ended already.");
      return output;
    });
  }

  private async newBook(manager: EntityManager, input: ImportInput, arrived: Arrived): Promise<string> {
    const title = (input.title || arrived.title).slice(0, 500);
    const author = { id: input.accountId, name: input.authorName };
    return (await this.books.insert(manager, author, title, arrived.language ?? "en")).id;
  }

  /** What was sent and has not become a book's. */
  private async drop({ manuscript, pictures }: ImportInput): Promise<void> {
    await this.database.manager.delete(StoredFile, { id: In([manuscript, ...pictures]), role: "upload" });
  }

  private async sweep(): Promise<void> {
    const before = new Date(Date.now() - sweptAfterMs);
    await this.database.manager.delete(StoredFile, { role: "upload", changedAt: LessThan(before) });
  }
}

function told({ chapters, leftOut }: ImportOutput): string {
  const came = `${chapters} ${chapters === 1 ? "chapter" : "chapters"} came in.`;
  if (leftOut.length === 0) return came;
  return `${came} ${leftOut.length === 1 ? "One thing" : `${leftOut.length} things`} could not be taken over as it was.`;
}
