import { randomUUID } from "node:crypto";
import { setMaxListeners } from "node:events";
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from "@nestjs/common";
import { InjectRepository } from "@nestjs/typeorm";
import { Observable } from "rxjs";
import { In, Repository } from "typeorm";
import { Problem } from "../errors/problem.ts";
import { Job, type JobKind } from "./job.entity.ts";

/** How a job's work tells how far it has come. */
export type Report = (progress: { done: number; total: number; message: string }) => void;
/** The work of one kind of job. It stops soon after the signal, and may be begun anew after a crash. */
export type JobWork = (job: Job, report: Report, signal: AbortSignal) => Promise<string>;

const finished = new Set(["done", "cancelled", "failed"]);
const concurrentJobs = 4;
const progressPause = 150;

/**
 * Runs jobs in this server. Their state is in the database alone, so jobs that a stop has interrupted
 * are taken up again at the next start.
 */
@Injectable()
export class JobsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(JobsService.name);
  private readonly works = new Map<JobKind, JobWork>();
  private readonly waiting: Job[] = [];
  private readonly running = new Map<string, { abort: AbortController; ended: Promise<void> }>();
  private readonly watchers = new Map<string, Set<(job: Job) => void>>();
  private stopping = false;

  constructor(@InjectRepository(Job) private readonly jobs: Repository<Job>) {}

  define(kind: JobKind, work: JobWork): void {
    this.works.set(kind, work);
  }

  async onApplicationBootstrap(): Promise<void> {
    const left = await this.jobs.find({
      where: { state: In(["waiting", "running"]) },
      order: { createdAt: "ASC" },
    });
    this.waiting.push(...left);
    this.next();
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopping = true;
    for (const { abort } of this.running.values()) abort.abort();
    await Promise.allSettled([...this.running.values()].map(({ ended }) => ended));
  }

  async enqueue(bookId: string, kind: JobKind, input: Record<string, unknown> = {}): Promise<Job> {
    const job = await this.jobs.save(
      this.jobs.create({
        id: randomUUID(),
        bookId,
        kind,
        state: "waiting",
        input,
        done: 0,
        total: 0,
        message: "",
      }),
    );
    this.waiting.push(job);
    this.next();
    return job;
  }

  /** The newest job of a kind for a book that has not ended, or null. */
  unfinished(bookId: string, kind: JobKind): Promise<Job | null> {
    return this.jobs.findOne({
      where: { bookId, kind, state: In(["waiting", "running"]) },
      order: { createdAt: "DESC" },
    });
  }

  latest(bookId: string, kind: JobKind): Promise<Job | null> {
    return this.jobs.findOne({ where: { bookId, kind }, order: { createdAt: "DESC" } });
  }

  find(id: string): Promise<Job | null> {
    return this.jobs.findOneBy({ id });
  }

  async cancel(job: Job): Promise<void> {
    if (finished.has(job.state)) throw new Problem(409, "job-ended", "This has ended already.");
    const running = this.running.get(job.id);
    if (running) {
      running.abort.abort();
      await running.ended;
      return;
    }
    const at = this.waiting.findIndex((candidate) => candidate.id === job.id);
    const [taken] = at === -1 ? [job] : this.waiting.splice(at, 1);
    await this.finish(taken!, "cancelled", "Cancelled.");
  }

  /** The job now, and again at every change, until it has ended. */
  watch(job: Job): Observable<Job> {
    return new Observable((subscriber) => {
      const tell = (state: Job): void => {
        subscriber.next({ ...state });
        if (finished.has(state.state)) subscriber.complete();
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

  private next(): void {
    while (!this.stopping && this.running.size < concurrentJobs) {
      const job = this.waiting.shift();
      if (!job) return;
      const abort = new AbortController();
      // A run listens once for every question that is under way.
      setMaxListeners(0, abort.signal);
      const ended = this.run(job, abort.signal).finally(() => {
        this.running.delete(job.id);
        this.next();
      });
      this.running.set(job.id, { abort, ended });
    }
  }

  private async run(job: Job, signal: AbortSignal): Promise<void> {
    // Watchers and database hear of it a few times a second, however fast the work is, and always of the last.
    let timer: NodeJS.Timeout | undefined;
    const tellLatest = (): void => {
      timer = undefined;
      this.tell(job);
      const { done, total, message } = job;
      void this.jobs
        .update({ id: job.id, state: "running" }, { done, total, message })
        .catch((error: unknown) =>
          this.logger.error(`Progress of job ${job.id} was not kept: ${String(error)}`),
        );
    };
    const report: Report = (progress) => {
      Object.assign(job, progress);
      timer ??= setTimeout(tellLatest, progressPause);
    };
    try {
      job.state = "running";
      await this.jobs.update({ id: job.id }, { state: "running" });
      this.tell(job);
      const work = this.works.get(job.kind);
      if (!work) throw new Error(`No work is defined for jobs of kind ${job.kind}.`);
      const message = await work(job, report, signal);
      await this.finish(job, "done", message);
    } catch (error) {
      if (this.stopping) return;
      if (signal.aborted) return this.finish(job, "cancelled", "Cancelled.");
      if (!(error instanceof Problem)) this.logger.error((error as Error).stack ?? String(error));
      const message =
        error instanceof Problem
          ? error.message
          : `Something went wrong in Vennet; its log says what. Try again. (Job ${job.id})`;
      await this.finish(job, "failed", message);
    } finally {
      clearTimeout(timer);
    }
  }

  private async finish(job: Job, state: "done" | "cancelled" | "failed", message: string): Promise<void> {
    Object.assign(job, { state, message });
    await this.jobs.update({ id: job.id }, { state, message, done: job.done, total: job.total });
    this.tell(job);
  }

  private tell(job: Job): void {
    for (const watcher of this.watchers.get(job.id) ?? []) watcher(job);
  }
}
