import { mailHost } from "@vennet/core/destination/kinds/email";
import { setTimeout as sleep } from "node:timers/promises";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { Outcome } from "@vennet/core/reach/outcome";
import { worstOf } from "@vennet/core/reach/mail-domain";
import { isTransient, mostTries, retryGapMs } from "@vennet/core/reach/politeness";
import { DataSource } from "typeorm";
import type { Job } from "../jobs/job.entity.ts";
import { Settings } from "../settings.ts";
import { AnswerWriter } from "./answer-writer.ts";
import { PageFetcher } from "./page-fetcher.ts";
import { HostGates } from "./host-gates.ts";
import { HostVisits } from "./host-visits.ts";
import { MailDomains } from "./mail-domains.ts";

interface Ask {
  askedHash: string;
  address: string;
  /** The destinations that it answers for, with their hashes: a page, and parts of it. */
  destinations: Map<string, string>;
}

interface Retry {
  ask: Ask;
  tries: number;
  due: number;
}

const asksAtOnce = 200;
const longestNap = 100;

/** Asks everything that one run has to ask of one host, at the host's pace. */
@Injectable()
export class HostWork {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly fetcher: PageFetcher,
    private readonly gates: HostGates,
    private readonly mail: MailDomains,
    private readonly writer: AnswerWriter,
    private readonly settings: Settings,
  ) {}

  /** Asks what has not been asked yet. Each answer is written down before the next question of its lane. */
  async run(job: Job, host: string, asked: () => void, signal: AbortSignal): Promise<void> {
    const domains = new Map<string, Promise<Outcome>>();
    const source = new Asks(this.database, job, host);
    const { reachTotalMs } = this.settings;
    const visits = new HostVisits(this.fetcher, this.gates, job.bookId!, () => source.left, reachTotalMs);
    const first = await source.next();
    if (!first) return;
    source.giveBack(first);
    if (host !== mailHost && source.left > 1) await visits.readCrawlDelay(first.address, signal);

    const retries: Retry[] = [];
    const lane = async (): Promise<void> => {
      for (;;) {
        signal.throwIfAborted();
        const retry = takeDue(retries);
        const ask = retry?.ask ?? (await source.next());
        if (!ask) {
          // Whoever puts something back to be tried again goes on, and will come to it.
          if (retries.length === 0) return;
          const due = Math.min(...retries.map((one) => one.due));
          await sleep(Math.max(5, Math.min(longestNap, due - performance.now())), undefined, { signal });
          continue;
        }
        const outcomes =
          host === mailHost
            ? new Map([[ask.address, await this.mail.visit(ask.address, domains)]])
            : await visits.visit(ask.address, [...ask.destinations.keys()], signal);
        const tries = (retry?.tries ?? 0) + 1;
        if (tries < mostTries && [...outcomes.values()].some(isTransient)) {
          retries.push({
            ask,
            tries,
            due: performance.now() + retryGapMs(tries, this.settings.reachRetryMs),
          });
          continue;
        }
        await this.keep(job, ask, outcomes);
        asked();
      }
    };
    const lanes = await Promise.allSettled(Array.from({ length: this.settings.reachLanes }, lane));
    for (const ended of lanes) if (ended.status === "rejected") throw ended.reason;
  }

  private async keep(job: Job, ask: Ask, outcomes: ReadonlyMap<string, Outcome>): Promise<void> {
    const { state } = worstOf([...outcomes.values()]);
    const byHash = new Map(
      [...outcomes].map(([address, outcome]) => [ask.destinations.get(address)!, outcome]),
    );
    const { id: jobId, bookId } = job;
    await this.writer.write({
      jobId,
      bookId: bookId!,
      askedHash: ask.askedHash,
      state,
      outcomes: byHash,
      at: new Date(),
    });
  }
}

function takeDue(retries: Retry[]): Retry | undefined {
  const now = performance.now();
  const at = retries.findIndex(({ due }) => due <= now);
  return at === -1 ? undefined : retries.splice(at, 1)[0];
}

/** What a run has yet to ask of a host, read from the database a little at a time. */
class Asks {
  private read: Ask[] = [];
  private after = "";
  private reading: Promise<void> | null = null;
  private isAtEnd = false;
  private unread = 0;

  constructor(
    private readonly database: DataSource,
    private readonly job: Job,
    private readonly host: string,
  ) {}

  async next(): Promise<Ask | undefined> {
    if (this.read.length === 0 && !this.isAtEnd) {
      this.reading ??= this.readMore().finally(() => (this.reading = null));
      await this.reading;
    }
    return this.read.pop();
  }

  giveBack(ask: Ask): void {
    this.read.push(ask);
  }

  /** How many nobody has taken yet. */
  get left(): number {
    return this.read.length + this.unread;
  }

  private async count(): Promise<number> {
    const [{ waiting }] = await this.database.query<[{ waiting: string }]>(
      "SELECT COUNT(*) AS waiting FROM reach_ask WHERE jobId = ? AND host = ? AND state IS NULL",
      [this.job.id, this.host],
    );
    return Number(waiting);
  }

  private async readMore(): Promise<void> {
    const rows: Pick<Ask, "askedHash" | "address">[] = await this.database.query(
      "SELECT askedHash, address FROM reach_ask WHERE jobId = ? AND host = ? AND state IS NULL AND askedHash > ? ORDER BY askedHash LIMIT ?",
      [this.job.id, this.host, this.after, asksAtOnce],
    );
    this.isAtEnd = rows.length < asksAtOnce;
    if (this.after === "" && !this.isAtEnd) this.unread = await this.count();
    this.unread = this.isAtEnd ? 0 : Math.max(0, this.unread - rows.length);
    if (rows.length === 0) return;
    this.after = rows.at(-1)!.askedHash;
    const asks = new Map(rows.map((row) => [row.askedHash, { ...row, destinations: new Map() }]));
    const uses: { askedHash: string; destination: string; destinationHash: string }[] =
      await this.database.query(
        "SELECT askedHash, destination, destinationHash FROM link_use WHERE bookId = ? AND askedHash IN (?)",
        [this.job.bookId, [...asks.keys()]],
      );
    for (const { askedHash, destination, destinationHash } of uses)
      asks.get(askedHash)!.destinations.set(destination, destinationHash);
    // What companion files lead to has its answer under the page itself.
    const ofFiles: { askedHash: string }[] = await this.database.query(
      "SELECT DISTINCT askedHash FROM file_link WHERE bookId = ? AND askedHash IN (?)",
      [this.job.bookId, [...asks.keys()]],
    );
    for (const { askedHash } of ofFiles) {
      const ask = asks.get(askedHash)!;
      ask.destinations.set(ask.address, askedHash);
    }
    for (const ask of asks.values()) {
      // A link that was taken out since the run began; its page is asked all the same.
      if (ask.destinations.size === 0) ask.destinations.set(ask.address, ask.askedHash);
      this.read.push(ask);
    }
  }
}
