import { HttpException } from "@nestjs/common";

/**
 * An error that a person can act on. Every error of the HTTP interface has this shape: a code for
 * programs, a message for people, and the field it is about where there is one.
 */
export class Problem extends HttpException {
  constructor(
    status: number,
    readonly code: string,
    message: string,
    readonly field?: string,
  ) {
    super({ code, message, ...(field === undefined ? {} : { field }) }, status);
  }
}

/** What does not exist, or is not this author's: both answer alike, so that nothing is given away. */
export function notFound(what: string): Problem {
  return new Problem(404, "not-found", `There is no such ${what}.`);
}
