import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { explainOutcome, type Outcome } from "@vennet/core/reach/outcome";
import { DataSource } from "typeorm";
import type { Job } from "../jobs/job.entity.ts";
import { JobsService, type Report } from "../jobs/jobs.service.ts";
import { Settings } from "../settings.ts";
import { Asker } from "./asker.ts";
import { ReachOutcome } from "./reach-outcome.entity.ts";
import type { DestinationAnswer } from "./reach.contract.ts";

const savePause = 300;

interface UseRow {
  askedHash: string;
  destination: string;
  linkId: string;
  text: string;
  chapterId: string;
  chapter: string;
}

/** Asks every web destination of a book, and tells what came of it. */
@Injectable()
export class ReachService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly asker: Asker,
    private readonly jobs: JobsService,
    private readonly settings: Settings,
  ) {
    jobs.define("reach", (job, report, signal) => this.run(job, report, signal));
  }

  /** Begins a run, or gives the one that is under way. */
  async begin(bookId: string): Promise<Job> {
    return (await this.jobs.unfinished(bookId, "reach")) ?? this.jobs.enqueue(bookId, "reach");
  }

  async destinations(bookId: string): Promise<DestinationAnswer[]> {
    const uses = await this.uses(bookId);
    const outcomes = await this.database.manager.findBy(ReachOutcome, { bookId });
    const byHash = new Map(outcomes.map((outcome) => [outcome.askedHash, outcome]));
    const answers = new Map<string, DestinationAnswer>();
    for (const { destination, askedHash, ...use } of uses) {
      let answer = answers.get(destination);
      if (!answer) {
        answer = { address: destination, ...describe(byHash.get(askedHash)), uses: [] };
        answers.set(destination, answer);
      }
      answer.uses.push(use);
    }
    return [...answers.values()];
  }

  private async run(job: Job, report: Report, signal: AbortSignal): Promise<string> {
    const { bookId } = job;
    const distinct = new Map((await this.uses(bookId)).map((use) => [use.askedHash, use.destination]));
    const queue = inTurnsByHost([...distinct]);
    const total = queue.length;
    const counts = new Map<string, number>();
    let done = 0;
    let unsaved: ReachOutcome[] = [];
    let saved = performance.now();
    const save = async (): Promise<void> => {
      const rows = unsaved;
      unsaved = [];
      saved = performance.now();
      if (rows.length > 0) await this.database.manager.upsert(ReachOutcome, rows, ["bookId", "askedHash"]);
    };
    report({ done, total, message: "Asking" });
    const lane = async (): Promise<void> => {
      for (let next = queue.pop(); next; next = queue.pop()) {
        signal.throwIfAborted();
        const [askedHash, address] = next;
        const outcome = await this.asker.reach(address, signal);
        const { state, code, hops, movedTo } = outcome;
        unsaved.push({ bookId, askedHash, state, code, hops, movedTo, checkedAt: new Date() });
        counts.set(state, (counts.get(state) ?? 0) + 1);
        done++;
        if (unsaved.length >= 50 || performance.now() - saved > savePause || queue.length === 0) await save();
        report({ done, total, message: tally(counts) });
      }
    };
    const lanes = await Promise.allSettled(
      Array.from({ length: this.settings.reachConcurrency }, () =>
        lane().catch((error: unknown) => {
          // The others finish what they are at, and begin nothing new.
          queue.length = 0;
          throw error;
        }),
      ),
    );
    // What was learnt before a cancel is kept.
    await save();
    for (const ended of lanes) if (ended.status === "rejected") throw ended.reason;
    return tally(counts);
  }

  private uses(bookId: string): Promise<UseRow[]> {
    return this.database.query(
      `SELECT u.askedHash, u.destination, u.linkId, u.text, u.chapterId, c.title AS chapter
       FROM link_use u JOIN chapter c ON c.id = u.chapterId AND c.deletedAt IS NULL
       WHERE u.bookId = ? AND u.askedHash IS NOT NULL ORDER BY c.position, u.ordinal`,
      [bookId],
    );
  }
}

function describe(row: ReachOutcome | undefined): Omit<DestinationAnswer, "address" | "uses"> {
  if (!row) return { state: "unchecked", reason: "Not asked yet.", movedTo: null, checkedAt: null, hops: [] };
  const outcome: Outcome = { state: row.state, code: row.code, hops: row.hops, movedTo: row.movedTo };
  return {
    state: row.state,
    reason: explainOutcome(outcome),
    movedTo: row.movedTo,
    checkedAt: row.checkedAt.toISOString(),
    hops: row.hops.map((hop) => ({ ...hop, failure: hop.failure?.code ?? null })),
  };
}

function tally(counts: Map<string, number>): string {
  const order = ["sound", "moved", "guarded", "broken", "unsure"];
  const parts = order.filter((state) => counts.has(state)).map((state) => `${counts.get(state)} ${state}`);
  return parts.join(", ") || "No web links to ask";
}

/** Takes turns between hosts, so that a host with many links does not hold up the others. */
function inTurnsByHost(entries: [hash: string, address: string][]): [string, string][] {
  const byHost = new Map<string, [string, string][]>();
  for (const entry of entries) {
    const { host } = new URL(entry[1]);
    const list = byHost.get(host);
    if (list) list.push(entry);
    else byHost.set(host, [entry]);
  }
  const out: [string, string][] = [];
  let lists = [...byHost.values()];
  while (lists.length > 0) {
    for (const list of lists) out.push(list.pop()!);
    lists = lists.filter((list) => list.length > 0);
  }
  return out.reverse();
}
