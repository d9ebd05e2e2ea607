import { Injectable } from "@nestjs/common";
import { finishedFormatOf, mediaTypeOf, type FinishedFormat } from "@vennet/core/finished/finished-format";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, IsNull } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { BooksService } from "../books/books.service.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { columns } from "../database/columns.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import { receivedAt } from "../files/receive.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { uploadedName, type UploadedFile } from "../files/uploaded-file.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import type { FinishedPageAnswer } from "./finished.dto.ts";

/** What a finished file is brought in with. */
interface BringInput {
  accountId: string;
  authorName: string;
  format: FinishedFormat;
  file: string;
  fileName: string;
  /** With which it opens; empty where it needs none. Nobody needs it in a job that has ended. */
  password: string;
}

/** Brings finished files in, and gives their pages with their links. */
@Injectable()
export class FinishedService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly books: BooksService,
    private readonly chapters: ChaptersService,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
    private readonly jobs: JobsService,
    private readonly quota: QuotaService,
  ) {
    jobs.define("bring-finished", {
      work: (job, report, signal) => this.run(job, report, signal),
      clearAway: async (job) => {
        const { file } = job.input as unknown as BringInput;
        await database.manager.delete(StoredFile, { id: file, role: "upload" });
        await this.forgetPassword(job);
      },
    });
  }

  /**
   * Keeps what was sent, and begins to read its links.
   * @throws Problem where it is no finished file, or the account may have no more
   */
  async begin(account: Account, file: UploadedFile | undefined, password: string): Promise<Job> {
    if (!file) throw new Problem(400, "no-file", "Choose a finished file to bring in.", "file");
    const received = await receivedAt(file.path);
    const fileName = uploadedName(file);
    const format = finishedFormatOf(received.sample, fileName);
    if (!format)
      throw new Problem(
        415,
        "no-finished-file",
        `“${fileName}” is neither a PDF nor an e-book (EPUB), as finished files are. A manuscript is brought in as one.`,
        "file",
      );
    await this.quota.assertBook(account.id);
    await this.quota.assertBytes(account.id, received.size);
    const about = { bookId: null, name: fileName, mediaType: mediaTypeOf(format), role: "upload" as const };
    const kept = await this.database.transaction((manager) =>
      this.files.storeReceived(about, received, manager),
    );
    const input: BringInput = {
      accountId: account.id,
      authorName: account.name,
      format,
      file: kept.id,
      fileName,
      password,
    };
    return this.jobs.enqueue(null, "bring-finished", { ...input });
  }

  /** The pages of a finished file with their links. */
  async pages(book: Book): Promise<FinishedPageAnswer[]> {
    if (!book.finished) throw notFound("finished file");
    const rows = await this.database.manager.find(Chapter, {
      where: { bookId: book.id, deletedAt: IsNull() },
      order: { position: "ASC" },
      select: { id: true, revision: true, document: true },
    });
    return rows.map(({ id, revision, document }) => ({
      id,
      revision,
      document: JSON.parse(document) as Record<string, unknown>,
    }));
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    // Where a stop came after all was written, there is nothing left to do.
    if (job.bookId) return "It is on the Shelf.";
    const { accountId, authorName, format, file, fileName, password } = job.input as unknown as BringInput;
    report({ done: 0, total: 100, message: "Reading the file" });
    const bytes = await this.files.read(file);
    const tell = ({ done = 0, message = "" }): void => report({ done: done * 0.9, total: 100, message });
    const { facts, pages } = await this.workers.run(
      "readFinished",
      { format, bytes, password },
      signal,
      tell,
    );
    signal.throwIfAborted();
    report({ done: 90, total: 100, message: "Keeping it" });
    const { id: bookId, links } = await this.database.transaction(async (manager) => {
      const title = (facts.title ?? fileName.replace(/\.[^.]*$/, "")).slice(0, 500) || "Untitled";
      const author = { id: accountId, name: (facts.author ?? authorName).slice(0, 200) };
      const { id } = await this.books.insert(manager, author, title, languageOf(facts.language));
      const finished = {
        format,
        fileId: file,
        fileName,
        pages: facts.pages,
        isTagged: facts.isTagged,
        isSigned: facts.isSigned,
        hasBrokenTable: facts.hasBrokenTable,
        ...(password === "" ? {} : { password }),
      };
      await manager.update(Book, { id }, columns<Book>({ finished }));
      await manager.update(StoredFile, { id: file }, { bookId: id, role: "finished" });
      for (const [position, page] of pages.entries()) await this.chapters.insert(manager, id, position, page);
      const { affected } = await manager.update(
        Job,
        { id: job.id, state: "running" },
        columns<Job>({ bookId: id }),
      );
      if (!affected) throw new Problem(409, "job-ended", "This has ended already.");
      const [{ count }] = (await manager.query("SELECT COUNT(*) AS count FROM link_use WHERE bookId = ?", [
        id,
      ])) as [{ count: string }];
      return { id, links: Number(count) };
    });
    await this.forgetPassword(job);
    // Those who watch the job are told what it made.
    job.bookId = bookId;
    report({ done: 100, total: 100, message: "" });
    return `${facts.pages} ${facts.pages === 1 ? "page" : "pages"} with ${links} ${links === 1 ? "link" : "links"} came in.`;
  }

  private async forgetPassword({ id, input }: Job): Promise<void> {
    if (!(input as { password?: string }).password) return;
    await this.database.manager.update(Job, { id }, columns<Job>({ input: { ...input, password: "" } }));
  }
}

function languageOf(said: string | null): string {
  try {
    return said ? new Intl.Locale(said).toString().slice(0, 35) : "en";
  } catch {
    return "en";
  }
}
