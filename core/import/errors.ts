import { CodedError } from "../errors.ts";

export type ImportErrorCode = "format" | "encoding";

/** A file cannot be brought in as a manuscript. The message is for the author. */
export class ImportError extends CodedError {
  declare readonly code: ImportErrorCode;
  constructor(code: ImportErrorCode, message: string) {
    super(code, message, "manuscript");
  }
}
