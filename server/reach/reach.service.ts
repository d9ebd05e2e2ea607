import { Injectable, Logger } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobsService, type Progress, type Report } from "../jobs/jobs.service.ts";
import { FileLinksService } from "../files/file-links.service.ts";
import { HostWork } from "./host-work.ts";
import { ReachRun, type StateCounts } from "./reach-run.entity.ts";
import type { ReachRequest, RunAnswer } from "./reach.dto.ts";
import { linksInUse, withOutcomes } from "../ledger/rows-in-use.ts";

const tellPause = 300;
const runsShown = 60;

/** Runs over all destinations of a book that can be asked, and tells what came of them. */
@Injectable()
export class ReachService {
  private readonly logger = new Logger(ReachService.name);
  /** When each run that is under way was last counted. */
  private readonly toldAt = new Map<string, number>();

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly hosts: HostWork,
    private readonly jobs: JobsService,
    private readonly fileLinks: FileLinksService,
  ) {
    jobs.define("reach", {
      work: (job, _report, signal) => this.run(job, signal),
      part: (job, host, report, signal) => this.part(job, host, report, signal),
    });
  }

  /** Begins a run, or gives the one that is under way. */
  async begin(bookId: string, { which = "all", addresses }: ReachRequest = {}): Promise<Job> {
    return (
      (await this.jobs.unfinished(bookId, "reach")) ??
      this.jobs.enqueue(bookId, "reach", { which, ...(addresses ? { addresses } : {}) })
    );
  }

  /** The book's runs, the oldest first. */
  async runs(bookId: string): Promise<RunAnswer[]> {
    const runs = await this.database.manager.find(ReachRun, {
      where: { bookId },
      order: { startedAt: "DESC" },
      take: runsShown,
    });
    return runs.reverse().flatMap(({ jobId, startedAt, endedAt, asked, counts, newlyBroken, wellAgain }) =>
      endedAt && counts
        ? [
            {
              id: jobId,
              startedAt: startedAt.toISOString(),
              endedAt: endedAt.toISOString(),
              asked,
              counts,
              newlyBroken,
              wellAgain,
            },
          ]
        : [],
    );
  }

  /** Lists what there is to ask, if that was not done before a stop, and hands it out host by host. */
  private async run(job: Job, signal: AbortSignal): Promise<string | null> {
    if (!(await this.database.manager.existsBy(ReachRun, { jobId: job.id }))) {
      await this.fileLinks.readAll(job.bookId!);
      await this.list(job);
    }
    const hosts: { host: string }[] = await this.database.query(
      "SELECT host FROM reach_ask WHERE jobId = ? AND state IS NULL GROUP BY host ORDER BY COUNT(*) DESC, host",
      [job.id],
    );
    signal.throwIfAborted();
    if (hosts.length === 0) {
      await this.end(job);
      return null;
    }
    const parts = hosts.map(({ host }) => host);
    await this.jobs.addParts(job, parts, await this.partsOfSameAuthor(job));
    return null;
  }

  private async part(job: Job, host: string, report: Report, signal: AbortSignal): Promise<void> {
    await this.hosts.run(job, host, () => this.tell(job, report), signal);
    // Looked for, not counted: of a run over thousands of hosts each would count all that there is to ask.
    const left: unknown[] = await this.database.query(
      "SELECT 1 FROM reach_ask WHERE jobId = ? AND state IS NULL LIMIT 1",
      [job.id],
    );
    if (left.length === 0) await this.end(job);
  }

  /** Counts a run's answers and reports them, once in a while for all of its parts that are done here. */
  private tell(job: Job, report: Report): void {
    const now = performance.now();
    if (now - (this.toldAt.get(job.id) ?? 0) < tellPause) return;
    this.toldAt.set(job.id, now);
    this.progress(job).then(report, (error: unknown) =>
      this.logger.error(`The answers of run ${job.id} could not be counted: ${String(error)}`),
    );
  }

  /** Writes down what a run has to ask: each page and each email once, with what is still fresh left out if so asked. */
  private async list(job: Job): Promise<void> {
    const { which, addresses } = job.input as { which?: string; addresses?: string[] };
    await this.database.transaction(async (manager) => {
      // A server that seemed dead may still be at it; the second to come waits for the first, and leaves it be.
      const begun: { affectedRows: number } = await manager.query(
        "INSERT IGNORE INTO reach_run (jobId, bookId, startedAt) VALUES (?, ?, ?)",
        [job.id, job.bookId, new Date()],
      );
      if (begun.affectedRows === 0) return;
      // What runs left that were cancelled or failed.
      await manager.query(
        "DELETE a FROM reach_ask a JOIN job j ON j.id = a.jobId WHERE j.bookId = ? AND j.state IN ('cancelled', 'failed')",
        [job.bookId],
      );
      const book = await manager.findOneByOrFail(Book, { id: job.bookId! });
      const freshSince = new Date(Date.now() - book.freshHours * 60 * 60 * 1000);
      await manager.query(
        `INSERT INTO reach_ask (jobId, askedHash, host, address)
         SELECT ?, u.askedHash, MIN(u.host), MIN(u.askedAddress)
         FROM ${linksInUse}
         ${withOutcomes}
         WHERE u.bookId = ? AND u.askedHash IS NOT NULL
         ${which === "due" ? "AND (o.checkedAt IS NULL OR o.checkedAt < ?)" : "AND ? IS NOT NULL"}
         ${addresses ? "AND u.destination IN (?)" : ""}
         GROUP BY u.askedHash`,
        [job.id, job.bookId, freshSince, ...(addresses ? [addresses] : [])],
      );
      if (addresses) return;
      // And where companion files lead that links of the book lead to.
      await manager.query(
        `INSERT IGNORE INTO reach_ask (jobId, askedHash, host, address)
         SELECT ?, l.askedHash, MIN(l.host), MIN(l.askedAddress) FROM file_link l
         LEFT JOIN reach_outcome o ON o.bookId = l.bookId AND o.destinationHash = l.askedHash
         WHERE l.bookId = ? AND l.askedHash IS NOT NULL
           ${which === "due" ? "AND (o.checkedAt IS NULL OR o.checkedAt < ?)" : "AND ? IS NOT NULL"}
           AND l.fileId IN (SELECT u.fileId FROM ${linksInUse} WHERE u.bookId = ?)
         GROUP BY l.askedHash`,
        [job.id, job.bookId, freshSince, job.bookId],
      );
    });
  }

  /** So many parts of one author's other runs are waiting; a new run's come behind them, but before the end of other authors'. */
  private async partsOfSameAuthor(job: Job): Promise<number> {
    const [row]: { parts: string }[] = await this.database.query(
      `SELECT COUNT(DISTINCT a.jobId, a.host) AS parts FROM reach_ask a
       JOIN job j ON j.id = a.jobId AND j.state = 'running' AND j.id <> ?
       JOIN book b ON b.id = j.bookId AND b.accountId = (SELECT accountId FROM book WHERE id = ?)
       WHERE a.state IS NULL`,
      [job.id, job.bookId],
    );
    return Number(row!.parts);
  }

  private async progress(job: Job, manager = this.database.manager): Promise<Progress> {
    const rows: { state: string | null; count: string }[] = await manager.query(
      "SELECT state, COUNT(*) AS count FROM reach_ask WHERE jobId = ? GROUP BY state",
      [job.id],
    );
    const total = rows.reduce((sum, { count }) => sum + Number(count), 0);
    const waiting = Number(rows.find(({ state }) => state === null)?.count ?? 0);
    const counts = new Map(rows.flatMap(({ state, count }) => (state ? [[state, Number(count)]] : [])));
    return { done: total - waiting, total, message: tally(counts) };
  }

  /** Sums a run up and ends its job, both or neither. Of two servers that come to its end, one does it. */
  private async end(job: Job): Promise<void> {
    await this.database.transaction(async (manager) => {
      const run = await manager.findOneOrFail(ReachRun, {
        where: { jobId: job.id },
        lock: { mode: "pessimistic_write" },
      });
      if (run.endedAt) return;
      const progress = await this.progress(job, manager);
      const states: { state: keyof StateCounts; count: string; newlyBroken: string; wellAgain: string }[] =
        await manager.query(
          `SELECT state, COUNT(*) AS count,
             SUM(state = 'broken' AND previous IS NOT NULL AND since >= ?) AS newlyBroken,
             SUM(state IN ('sound', 'moved') AND previous = 'broken' AND since >= ?) AS wellAgain
           FROM (
             SELECT DISTINCT u.destinationHash, COALESCE(o.state, 'unchecked') AS state, o.previous, o.since
             FROM ${linksInUse}
             ${withOutcomes}
             WHERE u.bookId = ? AND u.destinationHash IS NOT NULL
           ) d GROUP BY state`,
          [run.startedAt, run.startedAt, job.bookId],
        );
      const counts: StateCounts = { sound: 0, moved: 0, guarded: 0, broken: 0, unsure: 0, unchecked: 0 };
      let newlyBroken = 0;
      let wellAgain = 0;
      for (const row of states) {
        counts[row.state] = Number(row.count);
        newlyBroken += Number(row.newlyBroken);
        wellAgain += Number(row.wellAgain);
      }
      const summed = {
        endedAt: new Date(),
        asked: progress.total,
        counts,
        newlyBroken,
        wellAgain,
      };
      await manager.update(ReachRun, { jobId: job.id }, summed);
      await manager.query("DELETE FROM reach_ask WHERE jobId = ?", [job.id]);
      await manager.update(Job, { id: job.id, state: "running" }, { state: "done", ...progress });
    });
    this.toldAt.delete(job.id);
    await this.jobs.tellNow(job.id);
  }
}

function tally(counts: Map<string, number>): string {
  const order = ["sound", "moved", "guarded", "broken", "unsure"];
  const parts = order.filter((state) => counts.has(state)).map((state) => `${counts.get(state)} ${state}`);
  return parts.join(", ") || "Nothing to check";
}
