import { mediaTypeOf, type FinishedFormat } from "@vennet/core/finished/finished-format";
import type { DataSource } from "typeorm";
import type { Book } from "../books/book.entity.ts";
import { Export } from "../exports/export.entity.ts";
import { StoredFile } from "../files/stored-file.entity.ts";

/** A file of a publication that others can take along. */
export interface NewestFile {
  file: StoredFile;
  mediaType: string;
  /** Its name without the folder in which it may have gone out. */
  name: string;
  isFolder: boolean;
}

/** In which formats there are places that other files can lead to; the first is the one that most readers follow. */
const formats: readonly FinishedFormat[] = ["pdf", "epub"];

/**
 * The newest file of a publication: what went out last as PDF, else as e-book; of a finished file that was never saved
 * the one that came. Null where there is none.
 * @param mediaType of the kind that is asked for; the first there is where it is left out
 */
export async function newestFile(
  { manager }: DataSource,
  book: Book,
  mediaType?: string,
): Promise<NewestFile | null> {
  for (const format of formats) {
    const wanted = mediaTypeOf(format);
    if (mediaType !== undefined && mediaType !== wanted) continue;
    const last = await manager.findOne(Export, {
      where: { bookId: book.id, format },
      order: { createdAt: "DESC" },
      select: { id: true, fileId: true },
    });
    const id = last?.fileId ?? (book.finished?.format === format ? book.finished.fileId : null);
    const file = id === null ? null : await manager.findOneBy(StoredFile, { id });
    if (!file) continue;
    const isFolder = file.mediaType === "application/zip";
    const name = isFolder ? `${file.name.replace(/(-[a-z]+)?\.zip$/, "")}.${format}` : file.name;
    return { file, mediaType: wanted, name, isFolder };
  }
  return null;
}
