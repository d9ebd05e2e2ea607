import { CodedError } from "../errors.ts";

export type ImportErrorCode = "format" | "too-deep";

/** A file cannot be brought in as a manuscript. The message is for the author. */
export class ImportError extends CodedError {
  declare readonly code: ImportErrorCode;
  constructor(code: ImportErrorCode, message: string) {
    super(code, message, "manuscript");
  }
}

/** What lies too deep in each other to be read. @param where its place in the file, where that is known */
export function tooDeep(where: string | null): ImportError {
  return new ImportError(
    "too-deep",
    `Lists, quotes or other parts lie within each other deeper than can be read${where ? ` (${where})` : ""}. Take some of them out of the others, and bring the file in again.`,
  );
}

/** A file that is not as its program writes it. @param what is wrong with it, as a sentence */
export function damaged(what: string): ImportError {
  return new ImportError("format", `${what} It may be damaged; save it again and bring it anew.`);
}
