import { CodedError } from "../errors.ts";

export type ManuscriptErrorCode = "document" | "too-deep" | "anchor" | "range";

/** A document is not one that the schema allows, or lacks what was asked of it. */
export class ManuscriptError extends CodedError {
  declare readonly code: ManuscriptErrorCode;
  constructor(code: ManuscriptErrorCode, message: string) {
    super(code, message, "document");
  }
}
