import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { LinkProof } from "@vennet/core/proof/compare";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { usualOptions, type ExportFormat, type ExportOptions } from "@vennet/core/publish/export-options";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import { planLinks } from "@vennet/core/publish/link-plan";
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
import type { PlainBook, Written } from "../workshop/tasks.ts";
import { Workshop } from "../workshop/workshop.ts";
import { Export } from "./export.entity.ts";
import type {
  ExportAnswer,
  ExportListingAnswer,
  ExportRequest,
  PreflightAnswer,
  ProofRowAnswer,
} from "./exports.contract.ts";

const kinds: Record<ExportFormat, { mediaType: string; suffix: string; doing: string }> = {
  pdf: { mediaType: "application/pdf", suffix: "pdf", doing: "Setting the pages" },
  epub: { mediaType: "application/epub+zip", suffix: "epub", doing: "Writing the e-book" },
  web: { mediaType: "text/html", suffix: "html", doing: "Writing the web page" },
  markdown: { mediaType: "text/markdown", suffix: "md", doing: "Writing the Markdown" },
  docx: {
    mediaType: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
    suffix: "docx",
    doing: "Writing the text document",
  },
};

const noPages: ExportWarning = {
  code: "page-list",
  chapter: null,
  message:
    "No PDF has been exported yet, so the e-book tells no page numbers. Export a PDF first to have them.",
};

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

  begin(book: Book, request: ExportRequest): Promise<Job> {
    return this.jobs.enqueue(book.id, "export", { ...optionsOf(request) });
  }

  async preflight(book: Book, request: ExportRequest): Promise<PreflightAnswer> {
    const options = optionsOf(request);
    const manuscript = await this.books.manuscript(book);
    return {
      obstacles: findObstacles(manuscript, isStrict(options)).map(({ code, message }) => ({ code, message })),
      links: planLinks(manuscript, options),
      hasPages: (await this.lastPdf(book.id)) !== null,
    };
  }

  /** One chapter's open text, set as it will look in the PDF. */
  async setChapter(row: Book, chapterId: string, document: Record<string, unknown>): Promise<Uint8Array> {
    const book = await this.books.manuscript(row);
    const chapter = book.chapters.findIndex(({ id }) => id === chapterId);
    if (chapter === -1) throw notFound("chapter");
    book.chapters[chapter]!.doc = readChapter(document);
    const pictures = await this.books.picturesOf({ ...book, chapters: [book.chapters[chapter]!] });
    const last = await this.lastPdf(row.id);
    return this.workshop.run("setChapter", {
      book: { ...plainBook(book), pictures },
      chapter,
      pageOfPlace: last?.pageOfPlace ?? {},
    });
  }

  private lastPdf(bookId: string): Promise<Export | null> {
    return this.database.manager.findOne(Export, {
      where: { bookId, format: "pdf" },
      order: { createdAt: "DESC" },
      select: { id: true, fileId: true, fileName: true, pageOfPlace: true },
    });
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
    // Proofs of an earlier version do not list what follows by itself.
    const { rows, extra, pages, apparatus, made } = row.proof;
    return {
      ...listing(row),
      pages,
      apparatus,
      made: made?.total ?? 0,
      rows: rows.map(rowAnswer),
      madeRows: (made?.rows ?? []).map(rowAnswer),
      extraLinks: extra,
    };
  }

  /** The proof as a table, the links that follow by themselves and are wrong, and extra ones, at its end. */
  async proofCsv(bookId: string, id: string): Promise<string> {
    const { rows, madeRows, extraLinks } = await this.answer(bookId, id);
    const wrong = madeRows.filter(({ verdict }) => verdict !== "intact");
    const linked = [...rows, ...wrong].map(
      ({ chapter, text, destination, description, verdict, found, note }) => ({
        chapter,
        text,
        destination,
        description: description ?? "",
        verdict,
        found: found.join("; "),
        note: note ?? "",
      }),
    );
    const extra = extraLinks.map(({ text, destination, where }) => ({
      chapter: "",
      text,
      destination,
      description: "",
      verdict: "extra",
      found: where,
      note: "",
    }));
    return stringify([...linked, ...extra], { header: true, bom: true, escape_formulas: true });
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const begun = Date.now();
    const options = optionsOf(job.input as unknown as ExportRequest);
    const { format } = options;
    const step = (done: number, message: string): void => {
      signal.throwIfAborted();
      report({ done, total: 3, message });
    };
    step(0, "Reading the manuscript");
    const row = await this.database.manager.findOneByOrFail(Book, { id: job.bookId });
    const manuscript = await this.books.manuscript(row);
    manuscript.leavesFiles = options.companions === "left-out" && format !== "epub";
    manuscript.layout = options.layout ?? manuscript.layout;
    const obstacles = findObstacles(manuscript, isStrict(options));
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
    step(1, kinds[format].doing);
    const { bytes, warnings } = await this.write(options, book, stem, signal);
    step(2, "Reading the file back");
    const { proof, pageOfPlace } = await this.workshop.run("prove", { book: text, format, bytes }, signal);
    signal.throwIfAborted();
    const [{ revision }] = (await this.database.manager.query(
      "SELECT COALESCE(SUM(revision), 0) AS revision FROM chapter WHERE bookId = ?",
      [row.id],
    )) as [{ revision: string }];
    await this.database.transaction(async (manager) => {
      const { mediaType, suffix } = kinds[format];
      const isFolder = format !== "epub" && isZip(bytes) && !(format === "docx" && book.fileBytes.size === 0);
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
      await manager.insert(Export, {
        id: randomUUID(),
        bookId: row.id,
        format,
        options,
        warnings,
        tookMs: Date.now() - begun,
        revision: Number(revision),
        textAt: row.modifiedAt,
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

  private async write(
    options: ExportOptions,
    book: PlainBook,
    stem: string,
    signal: AbortSignal,
  ): Promise<Written> {
    const { format, accessible, addresses, pages, fonts, pageList } = options;
    const name = `${stem}.${kinds[format].suffix}`;
    switch (format) {
      case "pdf":
        return this.workshop.run("writePdf", { book, name, accessible, addresses }, signal);
      case "epub": {
        const last = pageList ? await this.lastPdf(book.id) : null;
        const pdf = last && { name: last.fileName, bytes: await this.files.read(last.fileId) };
        const written = await this.workshop.run("writeEpub", { book, fonts, pdf }, signal);
        if (pageList && !last) written.warnings.push(noPages);
        return written;
      }
      case "web":
        return this.workshop.run("writeWebPage", { book, name, pages }, signal);
      case "markdown":
        return this.workshop.run("writeMarkdown", { book, name }, signal);
      case "docx":
        return this.workshop.run("writeDocx", { book, name }, signal);
    }
  }
}

/** The choices of a request, with the usual ones for all that it leaves out. */
function optionsOf(request: ExportRequest): ExportOptions {
  const given = Object.entries(request).filter(([, value]) => value !== undefined);
  return { ...usualOptions, ...(Object.fromEntries(given) as unknown as ExportRequest) };
}

/** Whether the file makes a claim that no picture without words may break. */
function isStrict({ format, accessible }: ExportOptions): boolean {
  return format === "pdf" && accessible;
}

function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b;
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
    description: link.description,
    leadsTo: link.expected?.as ?? null,
    expected: link.expected?.value ?? null,
    landing: link.landing ?? null,
    verdict,
    found,
    note,
  };
}

function listing(row: Export): ExportListingAnswer {
  const { id, format, options, warnings, fileName, size, tookMs, revision, textAt, createdAt, proof } = row;
  return {
    id,
    format,
    options,
    warnings,
    fileName,
    size,
    tookMs,
    revision,
    textAt: textAt.toISOString(),
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
