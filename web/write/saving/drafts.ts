import type { ChapterJson } from "@vennet/core/manuscript/chapter";
import { openDB, type DBSchema, type IDBPDatabase } from "idb";

/** Text that the server does not have yet, with the revision that it was made from. */
export interface Draft {
  chapterId: string;
  revision: number;
  document: ChapterJson;
  /** The text of that revision; left out by what was kept before texts were put together. */
  base?: ChapterJson;
}

interface DraftSchema extends DBSchema {
  drafts: { key: string; value: Draft };
}

let opened: Promise<IDBPDatabase<DraftSchema>> | null = null;

function database(): Promise<IDBPDatabase<DraftSchema>> {
  return (opened ??= openDB<DraftSchema>("vennet", 1, {
    upgrade: (db) => void db.createObjectStore("drafts", { keyPath: "chapterId" }),
  }));
}

export async function readDraft(chapterId: string): Promise<Draft | null> {
  return (await (await database()).get("drafts", chapterId)) ?? null;
}

export async function keepDraft(draft: Draft): Promise<void> {
  await (await database()).put("drafts", draft);
}

export async function dropDraft(chapterId: string): Promise<void> {
  await (await database()).delete("drafts", chapterId);
}
