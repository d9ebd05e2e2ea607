export type ManuscriptErrorCode = "document";

/** A document is not one that the schema allows. */
export class ManuscriptError extends Error {
  override readonly name = "ManuscriptError";
  constructor(
    readonly code: ManuscriptErrorCode,
    message: string,
  ) {
    super(message);
  }
}
