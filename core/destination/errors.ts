export type DestinationErrorCode = "scheme" | "address" | "empty" | "kind" | "disk";

/** What was typed, pasted or imported cannot be a destination. The message is for the author. */
export class DestinationError extends Error {
  override readonly name = "DestinationError";
  constructor(
    readonly code: DestinationErrorCode,
    message: string,
  ) {
    super(message);
  }
}
