import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import { findObstacles } from "@vennet/core/publish/preflight";
import { DataSource } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { BooksService } from "../books/books.service.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import type { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import type { PlainBook } from "../workshop/tasks.ts";
import { Workshop } from "../workshop/workshop.ts";
import { Export, type ExportFormat } from "./export.entity.ts";
import type { ExportAnswer, ExportListingAnswer, ExportRequest, ObstacleAnswer } from "./exports.contract.ts";

const mediaTypes = { pdf: "application/pdf", epub: "application/epub+zip" };

/** Exports books, reads each exported file back, and keeps both with the proof. */
@Injectable()
export class ExportsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly books: BooksService,
    private readonly files: FilesService,
    private readonly workshop: Workshop,
    private readonly jobs: JobsService,
  ) {
    jobs.define("export", (job, report, signal) => this.run(job, report, signal));
  }

  begin(book: Book, { format, accessible = true }: ExportRequest): Promise<Job> {
    return this.jobs.enqueue(book.id, "export", { format, accessible });
  }

  async obstacles(book: Book, accessible: boolean): Promise<ObstacleAnswer[]> {
    return findObstacles(await this.books.manuscript(book), accessible).map(({ code, message }) => ({
      code,
      message,
    }));
  }

  async list(bookId: string): Promise<ExportListingAnswer[]> {
    const rows = await this.database.manager.find(Export, {
      where: { bookId },
      order: { createdAt: "DESC" },
      take: 50,
    });
    return rows.map(listing);
  }

  async find(bookId: string, id: string): Promise<Export> {
    const row = await this.database.manager.findOneBy(Export, { id, bookId });
    if (!row) throw notFound("export");
    return row;
  }

  async answer(bookId: string, id: string): Promise<ExportAnswer> {
    const row = await this.find(bookId, id);
    const { rows, extra, pages, apparatus } = row.proof;
    return {
      ...listing(row),
      pages,
      apparatus,
      rows: rows.map(({ link, verdict, found, note }) => ({
        linkId: link.id,
        chapter: link.chapter,
        text: link.text,
        destination: link.destination,
        verdict,
        found,
        note,
      })),
      extraLinks: extra,
    };
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const { format, accessible } = job.input as { format: ExportFormat; accessible: boolean };
    const step = (done: number, message: string): void => {
      signal.throwIfAborted();
      report({ done, total: 3, message });
    };
    step(0, "Reading the manuscript");
    const row = await this.database.manager.findOneByOrFail(Book, { id: job.bookId });
    const manuscript = await this.books.manuscript(row);
    const obstacles = findObstacles(manuscript, format === "pdf" && accessible);
    if (obstacles.length > 0) {
      throw new Problem(422, obstacles[0]!.code, obstacles.map((obstacle) => obstacle.message).join("\n"));
    }
    const { chapters, ...rest } = manuscript;
    const text: PlainBook = {
      ...rest,
      chapters: chapters.map(({ id, doc }) => ({ id, document: writeChapter(doc) })),
    };
    const book = { ...text, pictures: await this.books.picturesOf(manuscript) };
    step(1, format === "pdf" ? "Setting the pages" : "Writing the e-book");
    const bytes =
      format === "pdf"
        ? await this.workshop.run("writePdf", { book, accessible }, signal)
        : await this.workshop.run("writeEpub", { book }, signal);
    step(2, "Reading the file back");
    const proof = await this.workshop.run("prove", { book: text, format, bytes }, signal);
    signal.throwIfAborted();
    await this.database.transaction(async (manager) => {
      const fileName = `${fileStem(book.title)}.${format}`;
      const file = await this.files.store(
        { bookId: row.id, name: fileName, mediaType: mediaTypes[format], bytes },
        manager,
      );
      await manager.insert(Export, {
        id: randomUUID(),
        bookId: row.id,
        format,
        accessible: format === "epub" || accessible,
        fileId: file.id,
        fileName,
        size: file.size,
        proof: proof as object,
        createdAt: new Date(),
      });
    });
    report({ done: 3, total: 3, message: "" });
    if (proof.complete) return `All ${proof.total} links are in the file.`;
    return `${proof.total - proof.intact} of ${proof.total} links are not in the file as they should be${proof.extra.length > 0 ? `, and ${proof.extra.length} are extra` : ""}.`;
  }
}

function listing(row: Export): ExportListingAnswer {
  const { id, format, accessible, fileName, size, createdAt, proof } = row;
  return {
    id,
    format,
    accessible,
    fileName,
    size,
    createdAt: createdAt.toISOString(),
    complete: proof.complete,
    intact: proof.intact,
    total: proof.total,
    extra: proof.extra.length,
  };
}

function fileStem(title: string): string {
  const stem = title
    .normalize("NFKD")
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-+|-+$/g, "")
    .toLowerCase();
  return stem.slice(0, 80) || "book";
}
