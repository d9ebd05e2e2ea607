import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { KnownAnswer } from "@vennet/core/checks/finding";
import type { DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { endOf, explainOutcome } from "@vennet/core/reach/outcome";
import { DataSource, In } from "typeorm";
import { LedgerService } from "../ledger/ledger.service.ts";
import { linksInUse } from "../ledger/rows-in-use.ts";
import type { ReachAnswer } from "./reach-answer.entity.ts";
import { ReachOutcome } from "./reach-outcome.entity.ts";
import type { DestinationAnswer, HistoryAnswer } from "./reach.dto.ts";

const answersShown = 100;

interface UseRow {
  destinationHash: string;
  destination: string;
  kind: DestinationKind;
  linkId: string;
  text: string;
  chapterId: string;
  chapter: string;
  /** The companion file that is a copy of the page, and when it was taken. */
  keptCopy: string | null;
  keptAt: Date | null;
}

/** What asking has told of where the links of a book lead, and what its author has said to that. */
@Injectable()
export class DestinationsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly ledger: LedgerService,
  ) {}

  /**
   * The destinations of a book with what is known of each, and where they are linked.
   * @param chapterId leaves those that the rules of a chapter do not look at
   */
  async of(bookId: string, chapterId?: string): Promise<DestinationAnswer[]> {
    const only = chapterId === undefined ? undefined : await this.hashesFor(bookId, chapterId);
    if (only?.length === 0) return [];
    const [uses, outcomes] = await Promise.all([this.uses(bookId, only), this.outcomes(bookId, only)]);
    const answers = new Map<string, DestinationAnswer>();
    for (const { destination, destinationHash, kind, keptCopy, keptAt, ...use } of uses) {
      let answer = answers.get(destination);
      if (!answer) {
        answer = {
          address: destination,
          kind,
          ...describe(outcomes.get(destinationHash)),
          keptCopy,
          keptAt: keptAt?.toISOString() ?? null,
          uses: [],
        };
        answers.set(destination, answer);
      }
      answer.uses.push(use);
    }
    return [...answers.values()];
  }

  /** What the rules of a chapter look at: where its links lead, others with the same words, and the emails of the book. */
  private async hashesFor(bookId: string, chapterId: string): Promise<string[]> {
    const own: { destinationHash: string }[] = await this.database.query(
      `SELECT DISTINCT u.destinationHash FROM ${linksInUse}
       WHERE u.bookId = ? AND (u.chapterId = ? OR u.kind = 'email') AND u.destinationHash IS NOT NULL`,
      [bookId, chapterId],
    );
    const beside = await this.ledger.sameWordsBeside(bookId, chapterId);
    return [...new Set([...own, ...beside].flatMap(({ destinationHash }) => destinationHash ?? []))];
  }

  private async outcomes(bookId: string, only?: readonly string[]): Promise<Map<string, ReachOutcome>> {
    const rows = await this.database.manager.findBy(ReachOutcome, {
      bookId,
      ...(only ? { destinationHash: In(only) } : {}),
    });
    return new Map(rows.map((row) => [row.destinationHash, row]));
  }

  /** What is known of each destination of a book, by the destination as it is written. */
  async answers(bookId: string): Promise<Map<string, KnownAnswer>> {
    const outcomes = await this.outcomes(bookId);
    return new Map(
      (await this.uses(bookId)).flatMap(
        ({ destination, destinationHash, keptCopy }): [string, KnownAnswer][] => {
          const row = outcomes.get(destinationHash);
          if (!row) return [];
          return [[destination, { ...known(row), keptCopy }]];
        },
      ),
    );
  }

  /** Keeps that somebody has looked at what asking cannot judge. @returns whether there was such a destination */
  async looked(bookId: string, address: string): Promise<boolean> {
    const kept: { affectedRows: number } = await this.database.query(
      `UPDATE reach_outcome SET lookedAt = ? WHERE bookId = ? AND destinationHash = SHA2(?, 256) AND state IN ('unsure', 'guarded')`,
      [new Date(), bookId, address],
    );
    return kept.affectedRows > 0;
  }

  /** Keeps that a page is right as it is now, though it is another than it was. @returns whether it was another */
  async stillRight(bookId: string, address: string): Promise<boolean> {
    const kept: { affectedRows: number } = await this.database.query(
      `UPDATE reach_outcome SET fingerprint = latest, latest = NULL, changed = NULL, changedAt = NULL
       WHERE bookId = ? AND destinationHash = SHA2(?, 256) AND latest IS NOT NULL`,
      [bookId, address],
    );
    return kept.affectedRows > 0;
  }

  /** What one destination answered over time, the newest first. */
  async history(bookId: string, address: string): Promise<HistoryAnswer[]> {
    const rows: ReachAnswer[] = await this.database.query(
      `SELECT state, code, status, movedTo, checkedAt FROM reach_answer
       WHERE bookId = ? AND destinationHash = SHA2(?, 256) ORDER BY id DESC LIMIT ?`,
      [bookId, address, answersShown],
    );
    return rows.map(({ state, code, status, movedTo, checkedAt }) => ({
      state,
      reason: explainOutcome({ code, movedTo, hops: status === null ? [] : [statusOnly(status)] }),
      checkedAt: checkedAt.toISOString(),
    }));
  }

  private uses(bookId: string, only?: readonly string[]): Promise<UseRow[]> {
    return this.database.query(
      `SELECT u.destinationHash, u.destination, u.kind, u.linkId, u.text, u.chapterId, c.title AS chapter,
         k.fileId AS keptCopy, k.keptAt
       FROM ${linksInUse}
       LEFT JOIN kept_copy k ON k.bookId = u.bookId AND k.askedHash = u.askedHash
       WHERE u.bookId = ? AND u.destinationHash ${only ? "IN (?)" : "IS NOT NULL"} ORDER BY c.position, u.ordinal`,
      [bookId, ...(only ? [only] : [])],
    );
  }
}

function describe(
  row: ReachOutcome | undefined,
): Omit<DestinationAnswer, "address" | "kind" | "uses" | "keptCopy" | "keptAt"> {
  if (!row) {
    return {
      state: "unchecked",
      code: null,
      reason: "Not checked yet.",
      movedTo: null,
      title: null,
      secure: null,
      endsAt: null,
      type: null,
      certificateEnds: null,
      change: null,
      changedAt: null,
      lookedAt: null,
      checkedAt: null,
      since: null,
      lastSoundAt: null,
      hops: [],
    };
  }
  const { checkedAt, since, lastSoundAt, changedAt, hops } = row;
  return {
    ...known(row),
    checkedAt: checkedAt.toISOString(),
    since: since.toISOString(),
    lastSoundAt: lastSoundAt?.toISOString() ?? null,
    changedAt: changedAt?.toISOString() ?? null,
    hops: hops.map(({ method, address, status, location, leadsOn, failure, ms }) => ({
      method,
      address,
      status,
      location: location ?? leadsOn ?? null,
      failure: failure?.code ?? null,
      ms,
    })),
  };
}

/** What is known of a destination that was asked. */
function known(row: ReachOutcome): Omit<KnownAnswer, "keptCopy"> {
  const { state, code, movedTo, title, secure, changed, lookedAt } = row;
  return {
    state,
    code,
    reason: explainOutcome(row),
    movedTo,
    title,
    secure,
    ...endOf(row),
    change: changed,
    lookedAt: lookedAt?.toISOString() ?? null,
  };
}

function statusOnly(status: number) {
  return { method: "GET" as const, address: "", status, location: null, type: null, failure: null, ms: 0 };
}
