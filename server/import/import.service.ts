import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { WebPicture } from "@vennet/core/import/web-pictures";
import { DataSource, In, IsNull, LessThan, type EntityManager } from "typeorm";
import type { Account } from "../accounts/account.entity.ts";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { columns } from "../database/columns.ts";
import { BooksService } from "../books/books.service.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import { judgeMediaType, sampleSize } from "../files/media-type.ts";
import { receivedAt } from "../files/receive.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { uploadedName, type UploadedFile } from "../files/uploaded-file.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { stepAnswer } from "../history/history.controller.ts";
import type { StepAnswer } from "../history/history.dto.ts";
import type { ListedStep } from "../history/steps.service.ts";
import type { Tasks } from "../workers/tasks.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { writableText } from "@vennet/core/manuscript/writable-text";
import { Arrival } from "./arrival.entity.ts";
import { arrivalAnswer, type ImportAnswer, type ImportRequest, type KeepRequest } from "./import.dto.ts";
import { keptBeside, sentBeside } from "./files-beside.ts";
import { inputOf, type ImportInput } from "./import-input.ts";
import type { FileBeside } from "./read-manuscript.ts";
import type { ShownVersion } from "./take-in-version-task.ts";
import { UploadsService } from "./uploads.service.ts";
import { WebPictures, webPicturesAnswer } from "./web-pictures.ts";
import { changedSince, revisionsOf, VersionService } from "./version.service.ts";

interface ImportOutput {
  /** Null until it is kept. */
  bookId: string | null;
  title: string;
  chapters: number;
  links: number;
  /** Pictures that lie on the web and were not brought along. */
  webPictures: WebPicture[];
  /** Of a new version: the book as it was looked at, and the step that it was taken in by. */
  seen: string | null;
  step: StepAnswer | null;
}

type Arrived = Tasks["importManuscript"]["output"];
type Version = Tasks["takeInVersion"]["output"];

/** The files of a form. */
export interface SentFiles {
  manuscript?: UploadedFile[];
  pictures?: UploadedFile[];
  files?: UploadedFile[];
}

/** What was sent for an import that nobody ended is swept away after this long. */
const sweptAfterMs = 24 * 60 * 60_000;

/** Brings manuscripts in, as books of their own or as new chapters of one: read first, then written at once. */
@Injectable()
export class ImportService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly books: BooksService,
    private readonly chapters: ChaptersService,
    private readonly uploads: UploadsService,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
    private readonly jobs: JobsService,
    private readonly quota: QuotaService,
    private readonly versions: VersionService,
    private readonly webPictures: WebPictures,
  ) {
    jobs.define("import", {
      work: (job, report, signal) => this.run(job, report, signal),
      clearAway: (job) => this.drop(inputOf(job)),
    });
  }

  /**
   * Keeps what was sent, and begins to bring it in.
   * @param book the book that it is to be chapters of; null for one of its own
   */
  async begin(
    account: Account,
    book: Book | null,
    { manuscript: [manuscript] = [], pictures = [], files = [] }: SentFiles,
    request: ImportRequest,
  ): Promise<Job> {
    if (!manuscript) throw new Problem(400, "no-file", "Choose a manuscript to bring in.", "manuscript");
    if (!book) await this.quota.assertBook(account.id);
    await this.sweep();
    const received = await receivedAt(manuscript.path);
    const beside = [
      ...(await this.uploads.received(pictures, true)),
      ...(await this.uploads.received(files, false)),
    ];
    const input = await this.database.transaction(async (manager): Promise<ImportInput> => {
      const about = { name: uploadedName(manuscript), mediaType: "application/octet-stream", file: received };
      return {
        accountId: account.id,
        authorName: account.name,
        manuscript: await this.uploads.keep(about, manager),
        beside: await this.uploads.keepAll(beside, manager),
        fileName: about.name,
        title: request.title || null,
        baseAddress: request.baseAddress ?? null,
        review: request.review === "yes",
        isVersion: book !== null && request.as === "version",
        seen: null,
        choices: [],
        fetch: [],
        fetched: {},
      };
    });
    return this.jobs.enqueue(book?.id ?? null, "import", { ...input });
  }

  /** Brings in again what an author looked at, with more files or another address from which its links start. */
  async again(job: Job, { pictures = [], files = [] }: SentFiles, request: ImportRequest): Promise<Job> {
    const input = this.reviewed(job);
    const beside = [
      ...(await this.uploads.received(pictures, true)),
      ...(await this.uploads.received(files, false)),
    ];
    const more = await this.database.transaction((manager) => this.uploads.keepAll(beside, manager));
    return this.jobs.enqueue(job.bookId, "import", {
      ...input,
      beside: [...input.beside, ...more],
      title: request.title || input.title,
      baseAddress: request.baseAddress ?? input.baseAddress,
      fetch: request.fetchPictures ? (job.output as unknown as ImportOutput).webPictures : [],
    });
  }

  /** Keeps what an author looked at. */
  async keepReviewed(job: Job, { title, choices = [] }: KeepRequest): Promise<Job> {
    const input = this.reviewed(job);
    const { seen } = job.output as unknown as ImportOutput;
    return this.jobs.enqueue(job.bookId, "import", {
      ...input,
      title: title || input.title,
      review: false,
      seen,
      choices,
    });
  }

  /** Drops what an author looked at and does not want. */
  async dropReviewed(job: Job): Promise<void> {
    await this.drop(this.reviewed(job));
    await this.database.manager.delete(Arrival, { id: job.id, bookId: IsNull() });
  }

  /** @throws Problem where it is no import, or has not come to its end */
  async result({ id, kind, output }: Job): Promise<ImportAnswer> {
    if (kind !== "import" || output === null) throw notFound("import");
    const { bookId, title, chapters, links, step, webPictures = [] } = output as unknown as ImportOutput;
    const { manager } = this.database;
    const book = bookId === null ? null : await manager.findOneBy(Book, { id: bookId });
    if (bookId !== null && !book) throw notFound("book");
    const arrival = await manager.findOne(Arrival, {
      where: { id },
      select: { id: true, fileName: true, grouped: true, version: true, createdAt: true },
    });
    if (!arrival) throw notFound("arrival proof");
    return {
      book: book && (await this.books.answer(book)),
      title,
      chapters,
      links,
      arrival: arrivalAnswer(arrival),
      webPictures: webPicturesAnswer(webPictures),
      version: arrival.version === null ? null : (JSON.parse(arrival.version) as ShownVersion),
      step,
    };
  }

  private reviewed({ kind, state, input, output }: Job): ImportInput {
    const given = inputOf({ input });
    if (kind !== "import" || state !== "done" || !given.review || output === null) throw notFound("import");
    return given;
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    // Where a stop came after all was written, there is nothing left to do.
    if (job.output) return told(job.output as unknown as ImportOutput);
    const { manager } = this.database;
    const input = await this.withWebPictures(job, inputOf(job), report, signal);
    if (!(await manager.existsBy(StoredFile, { id: input.manuscript }))) throw keptAlready();
    const total = input.review ? 1 : 2;
    report({ done: 0, total, message: "Reading the manuscript" });
    const sent = await manager.findBy(StoredFile, { id: In(input.beside) });
    // Of two of a name the first that was sent is meant.
    sent.sort((a, b) => input.beside.indexOf(a.id) - input.beside.indexOf(b.id));
    const beside = await sentBeside(sent, (id) => this.files.read(id));
    const manuscript = {
      file: { name: input.fileName, bytes: await this.files.read(input.manuscript) },
      fallbackTitle: input.title || input.fileName.replace(/\.[^.]*$/, "") || "Untitled",
      baseAddress: input.baseAddress,
      conventions: job.bookId ? await this.conventionsOf(job.bookId) : null,
      beside,
      fetched: input.fetched,
    };
    if (!input.isVersion) {
      const arrived = await this.workers.run("importManuscript", manuscript, signal);
      signal.throwIfAborted();
      if (!input.review) report({ done: 1, total, message: "Keeping it" });
      const output = await this.keep(job, input, arrived, async (keeping) => {
        const bookId = job.bookId ?? (await this.newBook(keeping, input, arrived));
        if (job.bookId) await keeping.update(Book, { id: bookId }, { modifiedAt: new Date() });
        await this.writeFiles(keeping, bookId, input, arrived, beside);
        await this.chapters.append(keeping, bookId, arrived.chapters, arrived.roles);
        const documents = `[${arrived.chapters.map(({ document }) => document).join()}]`;
        return { bookId, step: null, documents };
      });
      report({ done: total, total, message: "" });
      return told(output);
    }
    const bookId = job.bookId!;
    const before = await this.versions.before(bookId, input.fileName);
    const seen = revisionsOf(before);
    if (input.seen !== null && input.seen !== seen) throw changedSince();
    const taken = await this.workers.run(
      "takeInVersion",
      {
        ...manuscript,
        // What was sent now comes before what the book has under the same name.
        beside: [...beside, ...(await keptBeside(before.kept, (id) => this.files.read(id)))],
        book: before.chapters.map(({ document }) => document),
        base: before.base,
        files: before.files,
        choices: input.choices,
      },
      signal,
    );
    signal.throwIfAborted();
    if (!input.review) report({ done: 1, total, message: "Keeping it" });
    const output = await this.keep(job, { ...input, seen }, taken, async (keeping) => {
      const step = await this.versions.write(keeping, bookId, before, taken);
      await this.writeFiles(keeping, bookId, input, taken, beside);
      return { bookId, step, documents: taken.documents };
    });
    report({ done: total, total, message: "" });
    return output.step?.summary ?? told(output);
  }

  /** With the pictures that are to be fetched among what was sent: what comes after need not ask for them again. */
  private async withWebPictures(
    job: Job,
    input: ImportInput,
    report: Report,
    signal: AbortSignal,
  ): Promise<ImportInput> {
    if (input.fetch.length === 0) return input;
    const fetched = await this.webPictures.fetch(input.fetch, report, signal);
    const files = Object.values(fetched).flatMap((one) => ("file" in one ? [one.file] : []));
    const known: ImportInput = {
      ...input,
      beside: [...input.beside, ...files],
      fetch: [],
      fetched: { ...input.fetched, ...fetched },
    };
    await this.database.manager.update(Job, { id: job.id }, columns<Job>({ input: { ...known } }));
    return known;
  }

  /** Writes all that arrived, and that it did, or nothing; of what its author is to look at first the proof alone. */
  private keep(
    job: Job,
    input: ImportInput,
    arrived: Arrived | Version,
    write: (
      manager: EntityManager,
    ) => Promise<{ bookId: string; step: ListedStep | null; documents: string }>,
  ): Promise<ImportOutput> {
    return this.database.transaction(async (manager) => {
      const kept = input.review ? null : await write(manager);
      const arrival = manager.create(Arrival, {
        id: job.id,
        bookId: kept?.bookId ?? null,
        fileName: input.fileName.slice(0, 255),
        grouped: arrived.grouped,
        csv: arrived.csv,
        documents: kept?.documents ?? "[]",
        version: "shown" in arrived ? arrived.shown : null,
        createdAt: new Date(),
      });
      await manager.insert(Arrival, columns<Arrival>(arrival));
      const output: ImportOutput = {
        bookId: kept?.bookId ?? null,
        title: input.title || arrived.title,
        chapters: "chapters" in arrived ? arrived.chapters.length : arrived.changes.length,
        links: arrived.links,
        webPictures: arrived.webPictures,
        seen: input.seen,
        step: kept?.step ? stepAnswer(kept.step) : null,
      };
      const { affected } = await manager.update(
        Job,
        { id: job.id, state: "running" },
        columns<Job>({ output: { ...output }, ...(kept ? { bookId: kept.bookId } : {}) }),
      );
      // Cancelled in between: nothing of it is kept.
      if (!affected) throw new Problem(409, "job-ended", "This has ended already.");
      return output;
    });
  }

  /** The files that came with a manuscript become its book's. */
  private async writeFiles(
    manager: EntityManager,
    bookId: string,
    { manuscript }: ImportInput,
    arrived: Pick<Arrived, "pictures" | "companions" | "usedBeside">,
    beside: readonly FileBeside[],
  ): Promise<void> {
    const { affected } = await manager.delete(StoredFile, { id: manuscript });
    if (!affected) throw keptAlready();
    for (const { id, name, size, companionId } of beside) {
      const isLinked = arrived.usedBeside.includes(companionId);
      if (size) await manager.update(StoredFile, { id }, { bookId, role: "picture" });
      else if (isLinked) await manager.update(StoredFile, { id }, { bookId, role: "companion" });
      else await manager.delete(StoredFile, { id });
      if (!size || !isLinked) continue;
      const copy = { id: companionId, name, bytes: await this.files.read(id) };
      await this.writeCompanion(manager, bookId, copy);
    }
    for (const { id, name, bytes } of arrived.pictures)
      await this.files.storePicture(bookId, name, bytes, manager, id);
    for (const companion of arrived.companions) await this.writeCompanion(manager, bookId, companion);
  }

  private async writeCompanion(
    manager: EntityManager,
    bookId: string,
    { id, name, bytes }: { id: string; name: string; bytes: Uint8Array },
  ): Promise<void> {
    const { mediaType } = await judgeMediaType(Buffer.from(bytes.subarray(0, sampleSize)), name);
    await this.files.store({ id, bookId, name, mediaType, role: "companion", bytes }, manager);
  }

  private async conventionsOf(bookId: string): Promise<Book["conventions"]> {
    return (await this.database.manager.findOneBy(Book, { id: bookId }))?.conventions ?? defaultConventions;
  }

  private async newBook(manager: EntityManager, input: ImportInput, arrived: Arrived): Promise<string> {
    // Cutting may leave half of a letter.
    const title = writableText((input.title || arrived.title).slice(0, 500));
    const name = writableText((arrived.author ?? input.authorName).slice(0, 200));
    const author = { id: input.accountId, name };
    const { id } = await this.books.insert(manager, author, title, arrived.language ?? "en");
    const { conventions, layout } = arrived;
    const said = { ...(conventions ? { conventions } : {}), ...(layout ? { layout } : {}) };
    if (conventions || layout) await manager.update(Book, { id }, columns<Book>(said));
    return id;
  }

  /** What was sent and has not become a book's. */
  private async drop({ manuscript, beside }: ImportInput): Promise<void> {
    await this.database.manager.delete(StoredFile, { id: In([manuscript, ...beside]), role: "upload" });
  }

  private async sweep(): Promise<void> {
    const before = new Date(Date.now() - sweptAfterMs);
    await this.database.manager.delete(StoredFile, { role: "upload", changedAt: LessThan(before) });
    await this.database.manager.delete(Arrival, { bookId: IsNull(), createdAt: LessThan(before) });
  }
}

function keptAlready(): Problem {
  const message = "This manuscript has been kept already, or is no longer there. Bring it in anew.";
  return new Problem(409, "kept-already", message);
}

function told({ chapters, bookId }: ImportOutput): string {
  if (bookId === null) return "It waits to be looked at.";
  return `${chapters} ${chapters === 1 ? "chapter" : "chapters"} came in.`;
}
