import { CodedError } from "../errors.ts";

export type FinishedErrorCode = "format" | "encrypted" | "password" | "page" | "changed";

/** A finished file cannot be read, or not be changed as asked. The message is for the author. */
export class FinishedError extends CodedError {
  declare readonly code: FinishedErrorCode;
  constructor(code: FinishedErrorCode, message: string) {
    super(code, message, "file");
  }
}
