import { CodedError } from "../errors.ts";

export type PdfErrorCode = "trailer" | "object" | "syntax" | "kind";

/** A PDF is not as it has to be for its objects to be read or changed. */
export class PdfError extends CodedError {
  declare readonly code: PdfErrorCode;
  constructor(code: PdfErrorCode, message: string) {
    super(code, message);
  }
}
