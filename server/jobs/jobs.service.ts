import { randomUUID } from "node:crypto";
import { setMaxListeners } from "node:events";
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from "@nestjs/common";
import { InjectRepository } from "@nestjs/typeorm";
import { CodedError } from "@vennet/core/errors";
import { Observable } from "rxjs";
import { In, Repository } from "typeorm";
import { columns } from "../database/columns.ts";
import { actingAccount, actingAs } from "../access/acting-account.ts";
import { databaseIsBack, isDatabaseAway } from "../database/away.ts";
import { lackOfRoom, Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Job } from "./job.entity.ts";
import { LocalQueue } from "./local-queue.ts";
import { RedisQueue } from "./redis-queue.ts";
import type { Piece, WorkQueue } from "./work-queue.ts";

/** How far a job has come. */
export interface Progress {
  done: number;
  total: number;
  message: string;
}

/** How a job's work tells how far it has come. */
export type Report = (progress: Progress) => void;
/**
 * The work of one kind of job. It stops soon after the signal, and may be begun anew after a crash. It gives the
 * words with which the job ends, or null where its parts go on and end it.
 */
export type JobWork = (job: Job, report: Report, signal: AbortSignal) => Promise<string | null>;
/** The work of one part of a job, which may be done on any server. */
export type PartWork = (job: Job, part: string, report: Report, signal: AbortSignal) => Promise<void>;

/** How the jobs of one kind are done. */
export interface JobKind {
  work: JobWork;
  /** Where it is handed out in parts: the work of one. */
  part?: PartWork;
  /** Clears away after a job that was cancelled or has failed. One that a stop interrupts is not ended. */
  clearAway?: (job: Job) => Promise<void>;
}

const finished = new Set(["done", "cancelled", "failed"]);
const concurrentJobs = 4;
const concurrentParts = 256;
/** So much of an account, and of a book, is under way at once, whatever others have begun. */
const jobsShare = 1;
const partsShare = 16;
/** And no more of an account than this, so that there is always a process for another's. */
const jobsMost = 2;
const progressPause = 150;
/** How soon a server hears of what another one did to a job. */
const lookPause = 300;

interface Running {
  job: Job;
  abort: AbortController;
  pieces: Set<Promise<void>>;
}

/**
 * Runs jobs in this server, or with Redis in any server that shares it. Their state is in the database alone,
 * so jobs that a stop has interrupted are taken up again at the next start.
 */
@Injectable()
export class JobsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(JobsService.name);
  private readonly kinds = new Map<string, JobKind>();
  private readonly running = new Map<string, Running>();
  private readonly watchers = new Map<string, Set<(job: Job) => void>>();
  private readonly whole: WorkQueue;
  private readonly parts: WorkQueue;
  private looking: NodeJS.Timeout | undefined;
  private stopping = false;
  /** Whether the last look for what other servers did failed. */
  private isBlind = false;

  constructor(
    @InjectRepository(Job) private readonly jobs: Repository<Job>,
    { redisUrl, takeOverMs }: Settings,
  ) {
    this.whole = redisUrl
      ? new RedisQueue("vennet-jobs", concurrentJobs, redisUrl, takeOverMs)
      : new LocalQueue(concurrentJobs, jobsShare, jobsMost);
    this.parts = redisUrl
      ? new RedisQueue("vennet-parts", concurrentParts, redisUrl, takeOverMs)
      : new LocalQueue(concurrentParts, partsShare, concurrentParts);
  }

  /** Says how the jobs of a kind are done. */
  define(name: string, kind: JobKind): void {
    this.kinds.set(name, kind);
  }

  async onApplicationBootstrap(): Promise<void> {
    const left = await this.jobs.find({
      where: { state: In(["waiting", "running"]) },
      order: { createdAt: "ASC" },
      select: { id: true, accountId: true, bookId: true },
    });
    this.whole.start((piece) => this.take(piece));
    this.parts.start((piece) => this.take(piece));
    await this.whole.add(left.map(pieceOf));
    this.lookLater();
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    clearTimeout(this.looking);
    for (const { abort } of this.running.values()) abort.abort();
    await Promise.all([this.whole.close(), this.parts.close()]);
  }

  /**
   * Begins a job in the name of whoever acts now.
   * @param bookId null where the book is not there yet
   * @param kind as its room has defined it
   */
  async enqueue(bookId: string | null, kind: string, input: Record<string, unknown> = {}): Promise<Job> {
    const job = this.jobs.create({
      id: randomUUID(),
      bookId,
      accountId: actingAccount(),
      kind,
      state: "waiting",
      input,
      output: null,
      done: 0,
      total: 0,
      message: "",
    });
    await this.jobs.insert(columns<Job>(job));
    await this.whole.add([pieceOf(job)]);
    return job;
  }

  /** Hands parts of a job out. Parts come in turns: the first part of every job before the second of any. */
  async addParts(job: Job, parts: readonly string[], first: number): Promise<void> {
    await this.parts.add(
      parts.map((part, i) => ({ jobId: job.id, part, priority: first + i, owner: job.bookId ?? "" })),
    );
  }

  /** Tells who watches here how a job is in the database, which its own work has changed. */
  async tellNow(jobId: string): Promise<void> {
    const job = await this.find(jobId);
    if (job) this.tell(job);
  }

  /** The newest job of a kind for a book that has not ended, or null. */
  unfinished(bookId: string, kind: string): Promise<Job | null> {
    return this.jobs.findOne({
      where: { bookId, kind, state: In(["waiting", "running"]) },
      order: { createdAt: "DESC" },
    });
  }

  /** The job of a kind that a book had last. */
  latest(bookId: string, kind: string): Promise<Job | null> {
    return this.jobs.findOne({ where: { bookId, kind }, order: { createdAt: "DESC" } });
  }

  /** A job by its id; null where there is none. */
  find(id: string): Promise<Job | null> {
    return this.jobs.findOneBy({ id });
  }

  /** Cancels a job wherever it runs. What runs here has stopped when this is done. */
  async cancel(job: Job): Promise<void> {
    if (!(await this.finish(job, "cancelled", { ...job, message: "Cancelled." })))
      throw new Problem(409, "job-ended", "This has ended already.");
    const running = this.running.get(job.id);
    running?.abort.abort();
    await Promise.allSettled(running?.pieces ?? []);
  }

  /** Cancels whatever has not ended for a book. */
  async cancelAllOf(bookId: string): Promise<void> {
    const going = await this.jobs.findBy({ bookId, state: In(["waiting", "running"]) });
    for (const job of going)
      await this.cancel(job).catch((error: unknown) => {
        // It ended by itself in between.
        if (!(error instanceof Problem && error.code === "job-ended")) throw error;
      });
  }

  /** The job now, and again at every change, until it has ended. */
  watch(job: Job): Observable<Job> {
    return new Observable((subscriber) => {
      let last = "";
      const tell = (now: Job): void => {
        const seen = JSON.stringify([now.state, now.done, now.total, now.message]);
        if (seen === last || subscriber.closed) return;
        last = seen;
        subscriber.next({ ...now });
        if (finished.has(now.state)) subscriber.complete();
      };
      const watchers = this.watchers.get(job.id) ?? new Set();
      this.watchers.set(job.id, watchers.add(tell));
      // Read again: it may have ended between the caller's look and now.
      void this.find(job.id).then(
        (current) => tell(current ?? job),
        (error: unknown) => subscriber.error(error),
      );
      return () => {
        watchers.delete(tell);
        if (watchers.size === 0) this.watchers.delete(job.id);
      };
    });
  }

  /**
   * Does a piece of a job here, and begins it anew where the database went away in the middle of it. It throws only
   * when this server stops, so that the piece is not lost.
   */
  private async take(piece: Piece): Promise<void> {
    for (;;) {
      try {
        return await this.takeOnce(piece);
      } catch (error) {
        if (this.stopping || !isDatabaseAway(error)) throw error;
        this.logger.warn(`Job ${piece.jobId} waits for the database.`);
        await databaseIsBack(this.jobs.manager.connection, () => this.stopping);
      }
    }
  }

  private async takeOnce({ jobId, part }: Piece): Promise<void> {
    const job = await this.find(jobId);
    if (!job || finished.has(job.state)) return;
    const running = this.running.get(jobId) ?? { job, abort: new AbortController(), pieces: new Set() };
    this.running.set(jobId, running);
    // Each piece has a signal of its own: one with thousands of listeners is slow to listen to.
    const own = new AbortController();
    const abort = (): void => own.abort(running.abort.signal.reason);
    for (const { signal } of [running.abort, own]) setMaxListeners(0, signal);
    running.abort.signal.addEventListener("abort", abort, { once: true });
    const ended = actingAs(job.accountId, () => this.work(running.job, part, own.signal));
    running.pieces.add(ended);
    try {
      await ended;
    } finally {
      running.abort.signal.removeEventListener("abort", abort);
      running.pieces.delete(ended);
      if (running.pieces.size === 0) this.running.delete(jobId);
    }
    if (this.stopping) throw new Error("The server stopped in the middle of this piece of work.");
  }

  private async work(job: Job, part: string, signal: AbortSignal): Promise<void> {
    // Watchers and database hear of it a few times a second, however fast the work is, and always of the last.
    let timer: NodeJS.Timeout | undefined;
    let told: Promise<unknown> = Promise.resolve();
    const tellLatest = (): void => {
      timer = undefined;
      this.tell(job);
      const { done, total, message } = job;
      told = this.jobs
        .update({ id: job.id, state: "running" }, { done, total, message })
        .catch((error: unknown) =>
          this.logger.error(`Progress of job ${job.id} was not kept: ${String(error)}`),
        );
    };
    // Two writes of one row at once would stand in each other's way.
    const end: typeof this.finish = async (...ended) => {
      clearTimeout(timer);
      await told;
      return this.finish(...ended);
    };
    const report: Report = (progress) => {
      Object.assign(job, progress);
      timer ??= setTimeout(tellLatest, progressPause);
    };
    try {
      if (part !== "") {
        await this.kinds.get(job.kind)!.part!(job, part, report, signal);
        return;
      }
      job.state = "running";
      const begun = await this.jobs.update(
        { id: job.id, state: In(["waiting", "running"]) },
        { state: "running" },
      );
      // Cancelled in between.
      if (begun.affected === 0) return;
      this.tell(job);
      const kind = this.kinds.get(job.kind);
      if (!kind) throw new Error(`No work is defined for jobs of kind ${job.kind}.`);
      const message = await kind.work(job, report, signal);
      if (message !== null) await end(job, "done", { ...job, message });
    } catch (error) {
      // A cancelled job is marked as such already; a stopped server's is taken up again.
      if (this.stopping || signal.aborted) return;
      // It is begun anew, as after a stop.
      if (isDatabaseAway(error)) throw error;
      const isForeseen = error instanceof CodedError;
      if (!isForeseen) this.logger.error((error as Error).stack ?? String(error));
      const message = isForeseen
        ? error.message
        : (lackOfRoom(error)?.message ??
          `Something went wrong in Vennet; its log says what. Try again. (Job ${job.id})`);
      await end(job, "failed", { ...job, message });
      this.running.get(job.id)?.abort.abort();
    } finally {
      clearTimeout(timer);
    }
  }

  /** Ends a job that has not ended yet; false where it had. */
  private async finish(
    job: Job,
    state: "done" | "cancelled" | "failed",
    { done, total, message }: Progress,
  ): Promise<boolean> {
    const ended = await this.jobs.update(
      { id: job.id, state: In(["waiting", "running"]) },
      { state, message, done, total },
    );
    if (!ended.affected) return false;
    if (state !== "done") await this.clearAway(job);
    this.tell({ ...job, state, message, done, total });
    return true;
  }

  private async clearAway(job: Job): Promise<void> {
    try {
      await this.kinds.get(job.kind)?.clearAway?.(job);
    } catch (error) {
      this.logger.error(`What job ${job.id} left was not cleared away: ${String(error)}`);
    }
  }

  private tell(job: Job): void {
    for (const watcher of this.watchers.get(job.id) ?? []) watcher(job);
  }

  /** Looks for what other servers did to the jobs that run or are watched here. */
  private async look(): Promise<void> {
    const ids = new Set([...this.running.keys(), ...this.watchers.keys()]);
    if (ids.size === 0) return;
    for (const job of await this.jobs.findBy({ id: In([...ids]) })) {
      // What runs here is told here, and sooner.
      if (!this.running.has(job.id) || finished.has(job.state)) this.tell(job);
      if (job.state === "cancelled" || job.state === "failed") this.running.get(job.id)?.abort.abort();
    }
  }

  private lookLater(): void {
    this.looking = setTimeout(() => {
      void this.look()
        .then(
          () => (this.isBlind = false),
          (error: unknown) => {
            // Told once, not at every look while the database is away.
            if (!this.isBlind) this.logger.error(`Jobs could not be looked at: ${String(error)}`);
            this.isBlind = true;
          },
        )
        .finally(() => {
          if (!this.stopping) this.lookLater();
        });
    }, lookPause);
  }
}

/** The whole of a job as a piece of work; one that nobody began is its book's. */
function pieceOf({ id, accountId, bookId }: Job): Piece {
  return { jobId: id, part: "", priority: 0, owner: accountId ?? bookId ?? "" };
}
