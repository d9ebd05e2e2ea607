import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { LinkProof } from "@vennet/core/proof/compare";
import { findObstacles } from "@vennet/core/publish/preflight";
import { stringify } from "csv-stringify/sync";
import { DataSource } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { BooksService } from "../books/books.service.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import type { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { plainBook } from "../workshop/plain-book.ts";
import { Workshop } from "../workshop/workshop.ts";
import { Export } from "./export.entity.ts";
import type {
  ExportAnswer,
  ExportListingAnswer,
  ExportRequest,
  ObstacleAnswer,
  ProofRowAnswer,
} from "./exports.contract.ts";

const mediaTypes = { pdf: "application/pdf", epub: "application/epub+zip", web: "text/html" };
const suffixes = { pdf: "pdf", epub: "epub", web: "html" };
const doing = { pdf: "Setting the pages", epub: "Writing the e-book", web: "Writing the web page" };

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

  begin(book: Book, { format, accessible = true, addresses = "none" }: ExportRequest): Promise<Job> {
    return this.jobs.enqueue(book.id, "export", { format, accessible, addresses });
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
    // Proofs of an earlier version do not speak of what follows by itself.
    const { rows, extra, pages, apparatus, made = { intact: 0, total: 0, wrong: [] } } = row.proof;
    return {
      ...listing(row),
      pages,
      apparatus,
      made: made.total,
      rows: rows.map(rowAnswer),
      madeRows: made.wrong.map(rowAnswer),
      extraLinks: extra,
    };
  }

  /** The proof as a table, the links that follow by themselves and are wrong, and extra ones, at its end. */
  async proofCsv(bookId: string, id: string): Promise<string> {
    const { rows, madeRows, extraLinks } = await this.answer(bookId, id);
    const linked = [...rows, ...madeRows].map(({ chapter, text, destination, verdict, found, note }) => ({
      chapter,
      text,
      destination,
      verdict,
      found: found.join("; "),
      note: note ?? "",
    }));
    const extra = extraLinks.map(({ text, destination, where }) => ({
      chapter: "",
      text,
      destination,
      verdict: "extra",
      found: where,
      note: "",
    }));
    return stringify([...linked, ...extra], { header: true, bom: true, escape_formulas: true });
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const {
      format,
      accessible,
      addresses = "none",
    } = job.input as unknown as ExportRequest & {
      accessible: boolean;
    };
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
    const text = plainBook(manuscript);
    const book = {
      ...text,
      pictures: await this.books.picturesOf(manuscript),
      fileBytes: await this.books.fileBytesOf(manuscript),
    };
    const stem = fileStem(book.title);
    step(1, doing[format]);
    const bytes =
      format === "pdf"
        ? await this.workshop.run("writePdf", { book, name: `${stem}.pdf`, accessible, addresses }, signal)
        : format === "epub"
          ? await this.workshop.run("writeEpub", { book }, signal)
          : await this.workshop.run("writeWebPage", { book, name: `${stem}.html` }, signal);
    step(2, "Reading the file back");
    const { proof, pageOfPlace } = await this.workshop.run("prove", { book: text, format, bytes }, signal);
    signal.throwIfAborted();
    await this.database.transaction(async (manager) => {
      const isFolder = format !== "epub" && book.fileBytes.size > 0;
      const fileName = isFolder ? `${stem}-${format}.zip` : `${stem}.${suffixes[format]}`;
      const mediaType = isFolder ? "application/zip" : mediaTypes[format];
      const file = await this.files.store(
        { bookId: row.id, name: fileName, mediaType, role: "export", bytes },
        manager,
      );
      await manager.insert(Export, {
        id: randomUUID(),
        bookId: row.id,
        format,
        accessible: format !== "pdf" || accessible,
        addresses: format === "pdf" ? addresses : "none",
        pageOfPlace: format === "pdf" ? Object.fromEntries(pageOfPlace) : null,
        fileId: file.id,
        fileName,
        size: file.size,
        proof,
        createdAt: new Date(),
      });
    });
    report({ done: 3, total: 3, message: "" });
    return summary(proof);
  }
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

function rowAnswer({ link, verdict, found, note }: LinkProof["rows"][number]): ProofRowAnswer {
  return {
    linkId: link.id,
    chapter: link.chapter,
    text: link.text,
    destination: link.destination,
    // Proofs of an earlier version have no name.
    destinationName: link.name ?? link.destination,
    verdict,
    found,
    note,
  };
}

function listing(row: Export): ExportListingAnswer {
  const { id, format, accessible, addresses, fileName, size, createdAt, proof } = row;
  return {
    id,
    format,
    accessible,
    addresses,
    fileName,
    size,
    createdAt: createdAt.toISOString(),
    complete: proof.complete,
    intact: proof.intact,
    total: proof.total,
    extra: proof.extra.length,
    madeWrong: proof.made ? proof.made.total - proof.made.intact : 0,
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
