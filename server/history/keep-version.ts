import { randomUUID } from "node:crypto";
import type { EntityManager } from "typeorm";
import { columns } from "../database/columns.ts";
import { actingAccount } from "../access/acting-account.ts";
import type { Chapter } from "../chapters/chapter.entity.ts";
import { LinkUse } from "../ledger/link-use.entity.ts";
import { ChapterVersion } from "./chapter-version.entity.ts";

/** While somebody writes, a version is kept this often. */
const keptEvery = 5 * 60_000;

/**
 * Keeps a chapter as it is now, before it is overwritten. While somebody writes one version in five
 * minutes is enough; `always` keeps it whatever the time, and a name makes it the author's own.
 */
export async function keepVersion(
  manager: EntityManager,
  chapter: Chapter,
  { always = false, name = null }: { always?: boolean; name?: string | null } = {},
): Promise<ChapterVersion | null> {
  const last = await manager.findOne(ChapterVersion, {
    where: { chapterId: chapter.id },
    order: { createdAt: "DESC", revision: "DESC" },
    select: { id: true, revision: true, createdAt: true, name: true },
  });
  const isKept = last?.revision === chapter.revision && name === null;
  const isRecent = last !== null && Date.now() - last.createdAt.getTime() < keptEvery;
  if (isKept || (isRecent && !always && name === null)) return null;
  const version = manager.create(ChapterVersion, {
    id: randomUUID(),
    chapterId: chapter.id,
    bookId: chapter.bookId,
    accountId: actingAccount(),
    revision: chapter.revision,
    title: chapter.title,
    document: chapter.document,
    words: chapter.words,
    links: await manager.countBy(LinkUse, { chapterId: chapter.id }),
    name,
    createdAt: new Date(),
  });
  await manager.insert(ChapterVersion, columns<ChapterVersion>(version));
  return version;
}
