import { setTimeout as sleep } from "node:timers/promises";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { changeOf, type Fingerprint } from "@vennet/core/reach/fingerprint";
import type { Outcome, ReachState } from "@vennet/core/reach/outcome";
import { DataSource, type EntityManager } from "typeorm";

/** What one question of a run came to. */
export interface Answered {
  jobId: string;
  bookId: string;
  askedHash: string;
  /** The worst state of its destinations. */
  state: ReachState;
  /** By the hashes of the destinations. */
  outcomes: ReadonlyMap<string, Outcome>;
  at: Date;
}

const rowsAtOnce = 500;
const gatheringMs = 5;

/**
 * Writes answers down before anything more is asked, so that a run that is broken off knows all that it has
 * asked. Whoever waits at the same time is written in one transaction.
 */
@Injectable()
export class AnswerWriter {
  private waiting: { answered: Answered; done: () => void; failed: (error: unknown) => void }[] = [];
  private isWriting = false;

  constructor(@InjectDataSource() private readonly database: DataSource) {}

  /** Keeps one answer; settled when the database has it. */
  write(answered: Answered): Promise<void> {
    return new Promise((done, failed) => {
      this.waiting.push({ answered, done, failed });
      if (!this.isWriting) void this.writeAll();
    });
  }

  private async writeAll(): Promise<void> {
    this.isWriting = true;
    while (this.waiting.length > 0) {
      // Whoever comes a moment later is written along.
      await sleep(gatheringMs);
      const batch = this.waiting.splice(0, rowsAtOnce);
      try {
        await this.database.transaction((manager) =>
          writeBatch(
            manager,
            batch.map(({ answered }) => answered),
          ),
        );
        for (const { done } of batch) done();
      } catch (error) {
        for (const { failed } of batch) failed(error);
      }
    }
    this.isWriting = false;
  }
}

/** What pages were like when they were first found well, by book and destination. */
async function fingerprintsOf(
  manager: EntityManager,
  rows: readonly { bookId: string; hash: string; outcome: Outcome }[],
): Promise<Map<string, Fingerprint>> {
  const read = rows.filter(({ outcome: { print } }) => print !== null);
  if (read.length === 0) return new Map();
  const kept: { bookId: string; destinationHash: string; fingerprint: string }[] = await manager.query(
    `SELECT bookId, destinationHash, fingerprint FROM reach_outcome
     WHERE fingerprint IS NOT NULL AND (bookId, destinationHash) IN (${read.map(() => "(?, ?)").join(", ")})`,
    read.flatMap(({ bookId, hash }) => [bookId, hash]),
  );
  return new Map(
    kept.map(({ bookId, destinationHash, fingerprint }) => [
      `${bookId} ${destinationHash}`,
      JSON.parse(fingerprint) as Fingerprint,
    ]),
  );
}

async function writeBatch(manager: EntityManager, batch: Answered[]): Promise<void> {
  const rows = batch.flatMap(({ bookId, outcomes, at }) =>
    [...outcomes].map(([hash, outcome]) => ({ bookId, hash, outcome, at })),
  );
  if (rows.length > 0) {
    const kept = await fingerprintsOf(manager, rows);
    // The assignments are made from left to right, so the old state is there until the last.
    await manager.query(
      `INSERT INTO reach_outcome (bookId, destinationHash, state, code, hops, movedTo, title, secure, checkedAt, since, lastSoundAt,
         fingerprint, latest, changed, changedAt)
       VALUES ${rows.map(() => `(${Array(15).fill("?").join(", ")})`).join(", ")}
       ON DUPLICATE KEY UPDATE lookedAt = IF(code = VALUES(code), lookedAt, NULL), code = VALUES(code),
         fingerprint = COALESCE(fingerprint, VALUES(fingerprint)), latest = VALUES(latest), changed = VALUES(changed),
         changedAt = IF(VALUES(changed) IS NULL, NULL, COALESCE(changedAt, VALUES(changedAt))), hops = VALUES(hops), movedTo = VALUES(movedTo),
         title = VALUES(title), secure = VALUES(secure), checkedAt = VALUES(checkedAt),
         since = IF(state = VALUES(state), since, VALUES(since)),
         previous = IF(state = VALUES(state), previous, state),
         lastSoundAt = COALESCE(VALUES(lastSoundAt), lastSoundAt), state = VALUES(state)`,
      rows.flatMap(({ bookId, hash, outcome, at }) => {
        const { state, code, hops, movedTo, title, secure } = outcome;
        const soundAt = state === "sound" || state === "moved" ? at : null;
        // What is no longer found, or not judged, says nothing of what the page is about.
        const print = soundAt === null ? null : outcome.print;
        const then = kept.get(`${bookId} ${hash}`) ?? null;
        const changed = then && print && changeOf(then, print);
        return [
          ...[bookId, hash, state, code, JSON.stringify(hops), movedTo, title, secure, at, at, soundAt],
          print && JSON.stringify(print),
          changed && JSON.stringify(print),
          changed && JSON.stringify(changed),
          changed && at,
        ];
      }),
    );
    await manager.query(
      `INSERT INTO reach_answer (bookId, destinationHash, state, code, status, movedTo, checkedAt)
       VALUES ${rows.map(() => "(?, ?, ?, ?, ?, ?, ?)").join(", ")}`,
      rows.flatMap(({ bookId, hash, outcome: { state, code, hops, movedTo }, at }) => [
        bookId,
        hash,
        state,
        code,
        hops.at(-1)?.status ?? null,
        movedTo,
        at,
      ]),
    );
  }
  const byState = new Map<string, Answered[]>();
  for (const one of batch) {
    const key = `${one.jobId} ${one.state}`;
    byState.set(key, [...(byState.get(key) ?? []), one]);
  }
  for (const same of byState.values()) {
    await manager.query("UPDATE reach_ask SET state = ? WHERE jobId = ? AND askedHash IN (?)", [
      same[0]!.state,
      same[0]!.jobId,
      same.map(({ askedHash }) => askedHash),
    ]);
  }
}
