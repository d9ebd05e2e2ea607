import { CodedError } from "../errors.ts";

export type DestinationErrorCode = "scheme" | "address" | "empty" | "kind" | "disk";

/** What was typed, pasted or imported cannot be a destination. The message is for the author. */
export class DestinationError extends CodedError {
  declare readonly code: DestinationErrorCode;
  constructor(code: DestinationErrorCode, message: string) {
    super(code, message, "destination");
  }
}
