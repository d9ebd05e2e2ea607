import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { readChapter } from "@vennet/core/manuscript/chapter";
import type { LinkProof } from "@vennet/core/proof/compare";
import {
  exportOptions,
  formats,
  type ExportChoices,
  type ExportOptions,
} from "@vennet/core/publish/formats/formats";
import { longWordsOf } from "@vennet/core/publish/formats/pdf/long-words";
import { planLinks } from "@vennet/core/publish/link-plan";
import { findObstacles, type Obstacle } from "@vennet/core/publish/preflight";
import { prepare } from "@vennet/core/publish/prepare";
import { DataSource } from "typeorm";
import { actingAccount } from "../access/acting-account.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { ManuscriptsService } from "../books/manuscripts.service.ts";
import { columns } from "../database/columns.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import type { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { DiskRoom } from "../operating/disk-room.ts";
import { plainBook } from "../workers/plain-book.ts";
import type { Tasks } from "../workers/tasks.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { Export } from "./export.entity.ts";
import type { PreflightAnswer } from "./exports.dto.ts";
import { lastWithPages } from "./last-with-pages.ts";

type Exported = Tasks["exportBook"]["output"];

type Manuscript = Awaited<ReturnType<ManuscriptsService["of"]>>;

/** A text as it is exported: the book's row and manuscript, and how often its chapters had been saved. */
interface TextOfBook {
  row: Book;
  manuscript: Manuscript;
  revision: number;
}

/** Exports books, reads each exported file back, and keeps both with the proof. */
@Injectable()
export class ExportsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly manuscripts: ManuscriptsService,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
    private readonly jobs: JobsService,
    private readonly disk: DiskRoom,
    private readonly quota: QuotaService,
  ) {
    jobs.define("export", { work: (job, report, signal) => this.run(job, report, signal) });
  }

  /** Begins an export as a job. */
  async begin(book: Book, choices: ExportChoices): Promise<Job> {
    await this.disk.assertRoom(0);
    await this.quota.assertBytes(book.accountId, 0);
    return this.jobs.enqueue(book.id, "export", { ...exportOptions(choices) });
  }

  /** What stops an export, and what becomes of every kind of link. */
  async preflight(book: Book, choices: ExportChoices): Promise<PreflightAnswer> {
    const options = exportOptions(choices);
    const manuscript = await this.manuscripts.of(book);
    return {
      obstacles: obstaclesOf(manuscript, options).map(({ code, message }) => ({ code, message })),
      links: planLinks(manuscript, options),
      hasPages: (await lastWithPages(this.database, book.id)) !== null,
    };
  }

  /** One chapter's open text, set as it will look in the PDF. */
  async setChapter(row: Book, chapterId: string, document: Record<string, unknown>): Promise<Uint8Array> {
    const book = await this.manuscripts.of(row);
    const chapter = book.chapters.findIndex(({ id }) => id === chapterId);
    if (chapter === -1) throw notFound("chapter");
    const doc = readChapter(document);
    const [longWord] = longWordsOf(doc);
    if (longWord) throw new Problem(422, "long-word", longWord);
    book.chapters[chapter]!.doc = doc;
    const pictures = await this.manuscripts.picturesOf({ ...book, chapters: [book.chapters[chapter]!] });
    const last = await lastWithPages(this.database, row.id);
    return this.workers.run("setChapter", {
      book: { ...plainBook(book), pictures },
      chapter,
      pageOfPlace: last?.pageOfPlace ?? {},
    });
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const begun = Date.now();
    const options = exportOptions(job.input as unknown as ExportChoices);
    const tell = ({ done = 0, message = "" }): void => report({ done, total: 3, message });
    tell({ message: "Reading the manuscript" });
    const text = await this.readText(job.bookId!);
    const manuscript = prepare(text.manuscript, options);
    const obstacles = obstaclesOf(manuscript, options);
    if (obstacles.length > 0) {
      throw new Problem(422, obstacles[0]!.code, obstacles.map((obstacle) => obstacle.message).join("\n"));
    }
    const stem = fileStem(manuscript.title);
    const { suffix, needsLastPages } = formats[options.format];
    const [pictures, fileBytes, lastPages] = await Promise.all([
      this.manuscripts.picturesOf(manuscript),
      this.manuscripts.fileBytesOf(manuscript),
      needsLastPages?.(options) ? this.readLastPages(job.bookId!) : null,
    ]);
    signal.throwIfAborted();
    const book = { ...plainBook(manuscript), pictures, fileBytes };
    const name = `${stem}.${suffix}`;
    const exported = await this.workers.run("exportBook", { book, options, name, lastPages }, signal, tell);
    signal.throwIfAborted();
    await this.keep(text, options, stem, exported, begun);
    tell({ done: 3 });
    return summary(exported.proof);
  }

  /** The text and its revision as of one moment, whatever is saved meanwhile. */
  private readText(bookId: string): Promise<TextOfBook> {
    return this.database.transaction("REPEATABLE READ", async (manager) => {
      const row = await manager.findOneByOrFail(Book, { id: bookId });
      const manuscript = await this.manuscripts.of(row, manager);
      const [{ revision }] = (await manager.query(
        "SELECT COALESCE(SUM(revision), 0) AS revision FROM chapter WHERE bookId = ?",
        [bookId],
      )) as [{ revision: string }];
      return { row, manuscript, revision: Number(revision) };
    });
  }

  private async readLastPages(bookId: string): Promise<{ name: string; bytes: Uint8Array } | null> {
    const last = await lastWithPages(this.database, bookId);
    return last && { name: last.fileName, bytes: await this.files.read(last.fileId) };
  }

  private async keep(
    { row, revision }: TextOfBook,
    options: ExportOptions,
    stem: string,
    { bytes, isFolder, warnings, proof, pageOfPlace }: Exported,
    begun: number,
  ): Promise<void> {
    const { format } = options;
    const { mediaType, suffix, hasPages } = formats[format];
    await this.database.transaction(async (manager) => {
      const fileName = isFolder ? `${stem}-${format}.zip` : `${stem}.${suffix}`;
      const file = await this.files.store(
        {
          bookId: row.id,
          name: fileName,
          mediaType: isFolder ? "application/zip" : mediaType,
          role: "export",
          bytes,
        },
        manager,
      );
      await manager.insert(
        Export,
        columns<Export>({
          id: randomUUID(),
          bookId: row.id,
          accountId: actingAccount(),
          format,
          options,
          warnings,
          tookMs: Date.now() - begun,
          revision,
          textAt: row.modifiedAt,
          pageOfPlace: hasPages ? Object.fromEntries(pageOfPlace) : null,
          fileId: file.id,
          fileName,
          size: file.size,
          proof,
          complete: proof.complete,
          intact: proof.intact,
          total: proof.total,
          extra: proof.extra.length,
          madeWrong: proof.made.total - proof.made.intact,
          createdAt: new Date(),
        }),
      );
    });
  }
}

/** Whether the file makes a claim that no picture without words may break. */
function obstaclesOf(manuscript: Manuscript, options: ExportOptions): Obstacle[] {
  const { isStrict, obstacles } = formats[options.format];
  return [...findObstacles(manuscript, isStrict?.(options) ?? false), ...(obstacles?.(manuscript) ?? [])];
}

function summary({ complete, total, intact, extra, made }: LinkProof): string {
  if (complete) return `All ${total} links are in the file.`;
  const wrong = made.total - made.intact;
  const also = [
    wrong > 0 ? `${wrong} ways to notes, signposts and return links are not either` : "",
    extra.length > 0 ? `${extra.length} are extra` : "",
  ].filter(Boolean);
  const lost = `${total - intact} of ${total} links are not in the file as they should be`;
  return `${[lost, ...also].join(", and ")}.`;
}

function fileStem(title: string): string {
  const stem = title
    .normalize("NFKD")
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-+|-+$/g, "")
    .toLowerCase();
  return stem.slice(0, 80) || "book";
}
