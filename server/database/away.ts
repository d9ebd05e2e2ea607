import { setTimeout as sleep } from "node:timers/promises";
import { QueryFailedError, type DataSource } from "typeorm";

/** How the driver tells that no database answers: it ended, is being started, or takes no more connections. */
const awayCodes = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "EPIPE",
  "ENOENT",
  "ETIMEDOUT",
  "PROTOCOL_CONNECTION_LOST",
  "PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR",
  "ER_CON_COUNT_ERROR",
  "ER_CONNECTION_KILLED",
  "ER_NORMAL_SHUTDOWN",
  "ER_SERVER_SHUTDOWN",
]);
/** How it tells that its disk is full. */
const fullCodes = new Set(["ENOSPC", "ER_DISK_FULL", "ER_RECORD_FILE_FULL"]);
const closedConnection = /closed state/;
const firstPause = 100;
const longestPause = 2_000;

interface DriverError extends Error {
  code?: string;
  fatal?: boolean;
}

/** Whether an error says that the database is away, so that the same may go well when it is back. */
export function isDatabaseAway(error: unknown): boolean {
  const { code = "", message = "", fatal } = driverErrorOf(error);
  const isOfDatabase = error instanceof QueryFailedError || fatal === true;
  return isOfDatabase && (awayCodes.has(code) || closedConnection.test(message));
}

/** Whether an error says that there is no room on a disk: the database's, or the one for temporary files. */
export function isDiskFull(error: unknown): boolean {
  return fullCodes.has(driverErrorOf(error).code ?? "");
}

/** Whether an error says that a statement is longer than the database is set to take. */
export function isTooLong(error: unknown): boolean {
  return driverErrorOf(error).code === "ER_NET_PACKET_TOO_LARGE";
}

/**
 * Waits until the database answers.
 * @param isOver asked before each try; when it says so, the wait ends without an answer
 */
export async function databaseIsBack(database: DataSource, isOver: () => boolean): Promise<void> {
  for (let pause = firstPause; !isOver(); pause = Math.min(pause * 2, longestPause)) {
    try {
      await database.query("SELECT 1");
      return;
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
      await sleep(pause);
    }
  }
}

function driverErrorOf(error: unknown): DriverError {
  return (error instanceof QueryFailedError ? error.driverError : error) as DriverError;
}
