import { randomUUID } from "node:crypto";
import { pictureSize } from "@vennet/core/manuscript/picture-size";
import { pictureTypes } from "../files/files.service.ts";
import type { StoredFile } from "../files/stored-file.entity.ts";
import type { FileBeside } from "./read-manuscript.ts";

type FileRow = Pick<StoredFile, "id" | "name" | "mediaType" | "sha256">;

/** Files that were sent beside a manuscript, as its reader knows them. */
export function sentBeside(
  rows: readonly FileRow[],
  read: (id: string) => Promise<Buffer>,
): Promise<FileBeside[]> {
  return Promise.all(
    rows.map(async (row) => {
      const file = await known(row, read);
      return { ...file, companionId: file.size ? randomUUID() : row.id };
    }),
  );
}

/** Files that a book has already: a new version of its manuscript need not bring them again. */
export function keptBeside(
  rows: readonly FileRow[],
  read: (id: string) => Promise<Buffer>,
): Promise<FileBeside[]> {
  return Promise.all(rows.map(async (row) => ({ ...(await known(row, read)), companionId: row.id })));
}

async function known(
  { id, name, mediaType, sha256 }: FileRow,
  read: (id: string) => Promise<Buffer>,
): Promise<Omit<FileBeside, "companionId">> {
  const isPicture = pictureTypes.includes(mediaType);
  return { id, name, sha256, size: isPicture ? pictureSize({ bytes: await read(id) }) : null };
}
