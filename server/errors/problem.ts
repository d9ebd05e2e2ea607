import { CodedError } from "@vennet/core/errors";

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

/** What does not exist, or is not this author's: both answer alike, so that nothing is given away. */
export function notFound(what: string): Problem {
  return new Problem(404, "not-found", `There is no such ${what}.`);
}
