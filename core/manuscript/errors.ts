export type ManuscriptErrorCode = "document" | "anchor";

/** A document is not one that the schema allows, or lacks what was asked of it. */
export class ManuscriptError extends Error {
  override readonly name = "ManuscriptError";
  constructor(
    readonly code: ManuscriptErrorCode,
    message: string,
  ) {
    super(message);
  }
}
