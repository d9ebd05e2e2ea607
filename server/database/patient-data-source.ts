import { setTimeout as sleep } from "node:timers/promises";
import { DataSource, type EntityManager, type QueryRunner } from "typeorm";

type Work<T> = (manager: EntityManager) => Promise<T>;
type Isolation = Parameters<QueryRunner["startTransaction"]>[0];

const deadlock = "ER_LOCK_DEADLOCK";
const mostTries = 8;
const longestPause = 20;

/**
 * A data source whose transactions, and statements outside of any, are begun anew where the database ended one of them
 * to let another through (error 1213, which its manual asks of every program). So the work of a transaction may be done more than
 * once: what it changes outside of the database, it changes to the same.
 */
export class PatientDataSource extends DataSource {
  override transaction<T>(work: Work<T>): Promise<T>;
  override transaction<T>(isolation: NonNullable<Isolation>, work: Work<T>): Promise<T>;
  override transaction<T>(...asked: [Work<T>] | [NonNullable<Isolation>, Work<T>]): Promise<T> {
    return untilLetThrough(() =>
      asked.length === 1 ? super.transaction(asked[0]) : super.transaction(asked[0], asked[1]),
    );
  }

  override createQueryRunner(...of: Parameters<DataSource["createQueryRunner"]>): QueryRunner {
    const runner = super.createQueryRunner(...of);
    const query = runner.query.bind(runner) as (...statement: unknown[]) => Promise<unknown>;
    const ask = (...statement: unknown[]): Promise<unknown> =>
      // A statement alone cannot be begun anew within a transaction: all before it was taken back as well.
      runner.isTransactionActive ? query(...statement) : untilLetThrough(() => query(...statement));
    return Object.assign(runner, { query: ask });
  }
}

async function untilLetThrough<T>(attempt: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await attempt();
    } catch (error) {
      if ((error as { code?: string }).code !== deadlock || tries >= mostTries) throw error;
      // Two that stood in each other's way do not begin in step.
      await sleep(Math.random() * longestPause);
    }
  }
}
