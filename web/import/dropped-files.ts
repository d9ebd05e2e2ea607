import { manuscriptFormats } from "@vennet/core/import/formats";
import { zip } from "fflate";

/** What was dropped onto a page, as a form takes it: the manuscript, and what belongs to it. */
export interface DroppedFiles {
  manuscript: File[];
  files: File[];
}

const endings = manuscriptFormats.flatMap((format) => format.endings);

/**
 * The files of a drop. A folder becomes one file, in which everything keeps its place; of several files the one that
 * looks like a manuscript is taken for it.
 */
export async function droppedFiles(transfer: DataTransfer): Promise<DroppedFiles> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const [folder] = entries.filter(({ isDirectory }) => isDirectory);
  if (folder && entries.length === 1)
    return { manuscript: [await packed(folder as FileSystemDirectoryEntry)], files: [] };
  const files = [...transfer.files];
  const isManuscript = (file: File): boolean =>
    endings.some((ending) => file.name.toLowerCase().endsWith(ending));
  const manuscript = files.find(isManuscript) ?? files[0];
  return { manuscript: manuscript ? [manuscript] : [], files: files.filter((file) => file !== manuscript) };
}

async function packed(folder: FileSystemDirectoryEntry): Promise<File> {
  const content: Record<string, Uint8Array> = {};
  for (const { path, file } of await filesIn(folder, ""))
    content[path] = new Uint8Array(await file.arrayBuffer());
  const bytes = await new Promise<Uint8Array>((resolve, reject) =>
    zip(content, { level: 0 }, (error, all) => (error ? reject(error) : resolve(all))),
  );
  return new File([bytes as BlobPart], `${folder.name}.zip`, { type: "application/zip" });
}

async function filesIn(
  folder: FileSystemDirectoryEntry,
  path: string,
): Promise<{ path: string; file: File }[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  // Each call gives some of them, and the last gives none.
  for (let some: FileSystemEntry[]; (some = await read(reader)).length > 0;) all.push(...some);
  const found = await Promise.all(
    all.map(async (entry) => {
      const at = `${path}${entry.name}`;
      if (entry.isDirectory) return filesIn(entry as FileSystemDirectoryEntry, `${at}/`);
      const file = await new Promise<File>((resolve, reject) =>
        (entry as FileSystemFileEntry).file(resolve, reject),
      );
      return [{ path: at, file }];
    }),
  );
  return found.flat();
}

function read(reader: FileSystemDirectoryReader): Promise<FileSystemEntry[]> {
  return new Promise((resolve, reject) => reader.readEntries(resolve, reject));
}
