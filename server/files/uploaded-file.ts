/** The largest file that can be uploaded, in bytes. */
export const uploadLimit = 50 * 1024 * 1024;
/** The largest form with files, in bytes. */
export const formLimit = 300 * 1024 * 1024;

/** A file as it was uploaded: its content waits on disk. */
export interface UploadedFile {
  originalname: string;
  path: string;
}

/** The file's own name, without folders. Forms carry names as bytes, which the parser reads as Latin-1. */
export function uploadedName({ originalname }: Pick<UploadedFile, "originalname">): string {
  return Buffer.from(originalname, "latin1")
    .toString("utf8")
    .replace(/^.*[/\\]/, "");
}
