import type { DataSource, EntityManager } from "typeorm";

const deadlock = "ER_LOCK_DEADLOCK";
const mostTries = 8;

/**
 * Runs a transaction that other servers' may stand in the way of: where the database ends it to let another
 * through, it is begun anew.
 */
export async function withoutDeadlock<T>(
  database: DataSource,
  work: (manager: EntityManager) => Promise<T>,
): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await database.transaction(work);
    } catch (error) {
      if ((error as { code?: string }).code !== deadlock || tries >= mostTries) throw error;
    }
  }
}
