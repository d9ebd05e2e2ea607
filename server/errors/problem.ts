import { CodedError } from "@vennet/core/errors";
import { isDiskFull, isTooLong } from "../database/away.ts";

/** A database that has ended is back after some seconds. */
const retryAfterSeconds = 5;

/** An error of the HTTP interface: a code for programs, a message for people, and the field it is about. */
export class Problem extends CodedError {
  /** @param status the status of HTTP that the answer has */
  constructor(
    readonly status: number,
    code: string,
    message: string,
    field?: string,
  ) {
    super(code, message, field);
  }
}

/** A problem that passes by itself: what was asked for may go well after so many seconds (RFC 9110, 10.2.3). */
export class PassingProblem extends Problem {
  /** @param retryAfter in seconds */
  constructor(
    status: number,
    code: string,
    message: string,
    readonly retryAfter: number,
  ) {
    super(status, code, message);
  }
}

/** The database does not answer (RFC 9110, 15.6.4). */
export function databaseAway(): PassingProblem {
  return new PassingProblem(
    503,
    "database-away",
    "Vennet’s database does not answer for the moment. What you write is kept in this browser, and is saved when it is back.",
    retryAfterSeconds,
  );
}

/** What is told where a disk or the database had no room for something; null for any other error. */
export function lackOfRoom(error: unknown): Problem | null {
  if (isDiskFull(error)) return noRoom();
  return isTooLong(error) ? tooLongForDatabase() : null;
}

/** A statement is longer than the database is set to take (RFC 4918, 11.5). */
function tooLongForDatabase(): Problem {
  return new Problem(
    507,
    "too-long",
    "This is more than the database of this Vennet is set to take at once: nothing was saved of it. Whoever runs this Vennet has to set its max_allowed_packet to 1G.",
  );
}

/** There is no room on the disk (RFC 4918, 11.5). */
export function noRoom(): Problem {
  return new Problem(
    507,
    "no-room",
    "There is no room for this on the disk of Vennet’s server: nothing was saved of it. Whoever runs this Vennet has to free some.",
  );
}

/** What does not exist, or is not this author's: both answer alike, so that nothing is given away. */
export function notFound(what: string): Problem {
  return new Problem(404, "not-found", `There is no such ${what}.`);
}
