import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { picturesInJson } from "@vennet/core/manuscript/pictures-in-json";
import type { ProofNumbers } from "@vennet/core/proof/compare";
import type { Foreseen } from "@vennet/core/publish/export-warning";
import { exportOptions, formats, type ExportChoices } from "@vennet/core/publish/formats/formats";
import { obstacleWords } from "@vennet/core/publish/preflight";
import { DataSource } from "typeorm";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { ManuscriptsService } from "../books/manuscripts.service.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilePlacesService } from "../files/file-places.service.ts";
import { FilesService } from "../files/files.service.ts";
import type { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { placesOfChapters } from "../ledger/places-of-chapters.ts";
import { DiskRoom } from "../operating/disk-room.ts";
import type { PlainBook } from "../workers/plain-book.ts";
import { exportLane } from "../workers/long-texts.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { KeptExports } from "./kept-exports.ts";
import { DamagedPicturesService } from "./damaged-pictures.service.ts";
import type { PreflightAnswer } from "./exports.dto.ts";
import { lastWithPages } from "./last-with-pages.ts";

/** A text as it is exported: the book's row and manuscript, and how often its chapters had been saved. */
interface TextOfBook {
  row: Book;
  manuscript: PlainBook;
  revision: number;
}

/** As many obstacles are told in the words of a job that failed. */
const mostTold = 10;

/** Exports books, reads each exported file back, and keeps both with the proof. */
@Injectable()
export class ExportsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly manuscripts: ManuscriptsService,
    private readonly files: FilesService,
    private readonly filePlaces: FilePlacesService,
    private readonly workers: WorkerPools,
    private readonly jobs: JobsService,
    private readonly disk: DiskRoom,
    private readonly quota: QuotaService,
    private readonly damagedPictures: DamagedPicturesService,
    private readonly kept: KeptExports,
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
    const [last, damaged, fontFaces] = await Promise.all([
      lastWithPages(this.database, book.id),
      this.damagedPictures.of(book.id),
      this.manuscripts.facesOf(book.id, manuscript.fonts),
    ]);
    const hasPages = last !== null;
    const { obstacles, changes, links } = await this.workers.run("preflight", {
      book: { ...manuscript, fontFaces },
      options,
      known: { hasPages, damaged },
    });
    const withPlace = <F extends Foreseen>({ at, ...foreseen }: F) => ({
      ...foreseen,
      chapterId: at && manuscript.chapters[at.chapter]!.id,
      from: at && at.from,
      to: at && at.to,
    });
    return {
      obstacles: obstacles.map(withPlace),
      changes: changes.map(withPlace),
      links,
      hasPages,
    };
  }

  /** One chapter's open text, set as it will look in the PDF. */
  async setChapter(row: Book, chapterId: string, document: Record<string, unknown>): Promise<Uint8Array> {
    const [book, chapters, pictures, last] = await Promise.all([
      this.manuscripts.frameOf(row),
      placesOfChapters(this.database, row.id),
      this.manuscripts.picturesOf(row.id, picturesInJson(document)),
      lastWithPages(this.database, row.id),
    ]);
    const at = chapters.findIndex(({ id }) => id === chapterId);
    if (at === -1) throw notFound("chapter");
    const fontFaces = await this.manuscripts.facesOf(row.id, book.fonts);
    const { role } = chapters[at]!;
    const one = { id: chapterId, role, title: "", document: JSON.stringify(document) };
    return this.workers.run("setChapter", {
      book: { ...book, chapters: [one], pictures, fontFaces },
      at,
      chapters,
      pageOfPlace: last?.pageOfPlace ?? {},
    });
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const begun = Date.now();
    const options = exportOptions(job.input as unknown as ExportChoices);
    const tell = ({ done = 0, message = "" }): void => report({ done, total: 100, message });
    tell({ message: "Reading the manuscript" });
    // The proof follows links into companion files by what is known of these.
    await this.filePlaces.ledInto(job.bookId!);
    const text = await this.readText(job.bookId!);
    const { manuscript } = text;
    const { obstacles, ...taken } = await this.workers.run(
      "preflight",
      { book: manuscript, options },
      signal,
    );
    if (obstacles.length > 0) {
      const told = obstacles.slice(0, mostTold).map(obstacleWords);
      const more = obstacles.length - told.length;
      if (more > 0) told.push(`And ${more} more: Export lists them all, each with its place.`);
      throw new Problem(422, obstacles[0]!.code, told.join("\n"));
    }
    const stem = fileStem(manuscript.title);
    const { suffix, needsLastPages } = formats[options.format];
    const [pictures, fileBytes, fontFaces, lastPages] = await Promise.all([
      this.manuscripts.picturesOf(manuscript.id, taken.pictures),
      this.manuscripts.fileBytesOf(taken.companions),
      this.manuscripts.facesOf(manuscript.id, manuscript.fonts),
      needsLastPages?.(options) ? this.readLastPages(job.bookId!) : null,
    ]);
    signal.throwIfAborted();
    const book = { ...manuscript, pictures, fileBytes, fontFaces };
    const name = `${stem}.${suffix}`;
    const lane = exportLane(manuscript.chapters);
    const exported = await this.workers.run(lane, { book, options, name, lastPages }, signal, tell);
    signal.throwIfAborted();
    const { isFolder, warnings, numbers, proof, pageOfPlace, bytes } = exported;
    const { mediaType, hasPages } = formats[options.format];
    await this.kept.keep({
      row: text.row,
      revision: text.revision,
      options,
      fileName: isFolder ? `${stem}-${options.format}.zip` : name,
      mediaType: isFolder ? "application/zip" : mediaType,
      bytes,
      warnings,
      numbers,
      proof,
      pageOfPlace: hasPages ? Object.fromEntries(pageOfPlace) : null,
      begun,
    });
    tell({ done: 100 });
    return summary(exported.numbers);
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
}

function summary({ complete, total, intact, extra, madeWrong, faults }: ProofNumbers): string {
  if (complete) return `All ${total} links are in the file.`;
  const also = [
    madeWrong > 0 ? `${madeWrong} ways to notes, signposts and return links are not either` : "",
    extra > 0 ? `${extra} are extra` : "",
    faults > 0 ? `${faults} ${faults === 1 ? "thing does" : "things do"} something to links` : "",
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
