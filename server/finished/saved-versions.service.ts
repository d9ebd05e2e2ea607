import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { mediaTypeOf } from "@vennet/core/finished/finished-format";
import { exportOptions } from "@vennet/core/publish/formats/formats";
import { DataSource, IsNull } from "typeorm";
import { QuotaService } from "../accounts/quota.service.ts";
import { Book } from "../books/book.entity.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { KeptExports } from "../exports/kept-exports.ts";
import { FilesService } from "../files/files.service.ts";
import type { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { DiskRoom } from "../operating/disk-room.ts";
import { WorkerPools } from "../workers/worker-pools.ts";

/** Saves finished files with their links as they are now, each as a new version with its proof. */
@Injectable()
export class SavedVersionsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly files: FilesService,
    private readonly workers: WorkerPools,
    private readonly jobs: JobsService,
    private readonly kept: KeptExports,
    private readonly quota: QuotaService,
    private readonly disk: DiskRoom,
  ) {
    jobs.define("save-finished", { work: (job, report, signal) => this.run(job, report, signal) });
  }

  /** Begins to save a version as a job. */
  async begin(book: Book): Promise<Job> {
    if (!book.finished) throw notFound("finished file");
    await this.disk.assertRoom(0);
    await this.quota.assertBytes(book.accountId, 0);
    return this.jobs.enqueue(book.id, "save-finished", {});
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const begun = Date.now();
    const tell = ({ done = 0, message = "" }): void => report({ done, total: 100, message });
    tell({ message: "Reading the file" });
    const { row, pages, revision } = await this.read(job.bookId!);
    const { finished } = row;
    if (!finished) throw notFound("finished file");
    const files = new Map(
      (await this.files.companions(row.id)).map(({ id, name }): [string, string] => [id, name]),
    );
    const bytes = await this.files.read(finished.fileId);
    const saved = await this.workers.run(
      "saveFinished",
      { format: finished.format, bytes, pages, files, password: finished.password ?? "" },
      signal,
      tell,
    );
    signal.throwIfAborted();
    if (saved.added + saved.changed + saved.removed === 0)
      throw new Problem(
        422,
        "nothing-changed",
        "No link differs from the file that came, so there is nothing to save.",
      );
    await this.kept.keep({
      row,
      revision,
      options: exportOptions({ format: finished.format }),
      fileName: finished.fileName,
      mediaType: mediaTypeOf(finished.format),
      bytes: saved.bytes,
      warnings: [],
      numbers: saved.numbers,
      proof: saved.proof,
      pageOfPlace: null,
      begun,
    });
    tell({ done: 100 });
    return told(saved);
  }

  /** The links of all pages as of one moment, whatever is saved meanwhile. */
  private read(bookId: string): Promise<{ row: Book; pages: string[]; revision: number }> {
    return this.database.transaction("REPEATABLE READ", async (manager) => {
      const row = await manager.findOneByOrFail(Book, { id: bookId });
      const chapters = await manager.find(Chapter, {
        where: { bookId, deletedAt: IsNull() },
        order: { position: "ASC" },
        select: { id: true, document: true, revision: true },
      });
      return {
        row,
        pages: chapters.map(({ document }) => document),
        revision: chapters.reduce((sum, one) => sum + one.revision, 0),
      };
    });
  }
}

function told({
  added,
  changed,
  removed,
  numbers,
}: {
  added: number;
  changed: number;
  removed: number;
  numbers: { complete: boolean };
}): string {
  const parts = [
    [added, "new"],
    [changed, "changed"],
    [removed, "taken out"],
  ].flatMap(([count, what]) => (count === 0 ? [] : [`${count} ${what}`]));
  const proof = numbers.complete
    ? "All else is as it was."
    : "Look at the proof: not all is as it was asked.";
  return `Saved: ${parts.join(", ")}. ${proof}`;
}
