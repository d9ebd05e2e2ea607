import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, type EntityManager } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import type { DerivedChapter } from "../chapters/derived-chapter.ts";
import { actingAccount } from "../access/acting-account.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { BookStep, type ChapterChange, type StepKind } from "./book-step.entity.ts";
import { ChapterVersion } from "./chapter-version.entity.ts";
import type { ChapterEdit, EditedChapter } from "./edit-chapter-task.ts";

/** What undoing a step came to. */
export interface Undone {
  step: ListedStep;
  /** Links that are as they were before the step. */
  undone: number;
  /** Links that were changed or removed since, and stay as they are. */
  left: number;
}

/** What a step did to one chapter, with how many links. */
interface CountedChange extends Pick<ChapterChange, "chapterId" | "before" | "after"> {
  step: string;
  links: number;
  became: ChapterChange["became"] | null;
}

/** A step as lists show it. */
export interface ListedStep extends Pick<BookStep, "id" | "kind" | "summary" | "createdAt" | "undoneAt"> {
  chapters: { chapterId: string; links: number }[];
}

/** Keeps the actions that change many links, so that each can be undone as one. */
@Injectable()
export class StepsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
    private readonly workers: WorkerPools,
  ) {}

  /** Begins a step within a transaction of `ChaptersService.changing`. */
  begin(bookId: string): StepInProgress {
    return new StepInProgress(bookId, this.chapters, (chapter, edit) => this.edited(chapter, edit));
  }

  /** The steps of a book, the newest first, each with how many links of which chapters it changed. */
  async list(bookId: string): Promise<ListedStep[]> {
    const steps = await this.database.manager.find(BookStep, {
      where: { bookId },
      order: { createdAt: "DESC" },
      take: 100,
      select: { id: true, kind: true, summary: true, createdAt: true, undoneAt: true },
    });
    const changes = await this.changesOf(steps.map(({ id }) => id));
    return steps.map((step) => ({
      ...step,
      chapters: changes
        .filter((change) => change.step === step.id)
        .map(({ chapterId, links }) => ({ chapterId, links })),
    }));
  }

  /**
   * Undoes a step. A chapter that nobody has changed since gets its old text back; in one that was, each
   * link gets back what the step took from it, where the link is still as the step left it.
   */
  async undo(bookId: string, id: string): Promise<Undone> {
    return this.chapters.changing(bookId, async (manager) => {
      const step = await manager.findOne(BookStep, {
        where: { id, bookId },
        lock: { mode: "pessimistic_write" },
      });
      if (!step) throw notFound("step");
      if (step.undoneAt) throw new Problem(409, "undone", "This has been undone already.");
      let undone = 0;
      let left = 0;
      const changes = await this.changesOf([id], manager);
      for (const [at, change] of changes.entries()) {
        const chapter = await manager.findOneBy(Chapter, { id: change.chapterId });
        if (chapter && change.became) {
          await this.comeOrGo(manager, chapter, change.became === "gone");
          continue;
        }
        if (!chapter) {
          left += change.links;
          continue;
        }
        const { text, count } = await this.before(manager, chapter, step, at, change);
        undone += count;
        left += change.links - count;
        await this.chapters.write(manager, chapter, text, "always");
      }
      step.undoneAt = new Date();
      await manager.update(BookStep, { id: step.id }, { undoneAt: step.undoneAt });
      const chapters = changes.map(({ chapterId, links }) => ({ chapterId, links }));
      return { step: { ...step, chapters }, undone, left };
    });
  }

  /**
   * Does a step again that was undone. Its chapters get the text that it had made, where nobody has changed them since.
   * @throws Problem where one has been changed
   */
  async redo(bookId: string, id: string): Promise<ListedStep> {
    return this.chapters.changing(bookId, async (manager) => {
      const step = await manager.findOne(BookStep, {
        where: { id, bookId },
        lock: { mode: "pessimistic_write" },
      });
      if (!step) throw notFound("step");
      if (!step.undoneAt) throw new Problem(409, "not-undone", "This stands as it was done.");
      const changes = JSON.parse(step.changes) as ChapterChange[];
      for (const change of changes) {
        if (change.became) {
          const one = await manager.findOneBy(Chapter, { id: change.chapterId });
          if (one) await this.comeOrGo(manager, one, change.became === "new");
          continue;
        }
        const chapter = await this.chapters.find(manager, bookId, change.chapterId, true);
        const versionOf = (revision: number): Promise<ChapterVersion | null> =>
          manager.findOneBy(ChapterVersion, { chapterId: chapter.id, revision });
        const [before, after] = [await versionOf(change.before), await versionOf(change.after)];
        if (!after || before?.document !== chapter.document) {
          throw new Problem(
            409,
            "changed-since",
            `“${chapter.title}” has been changed since this was done. Do it anew.`,
          );
        }
        change.before = chapter.revision;
        await this.chapters.write(manager, chapter, await this.chapters.readText(after.document), "always");
        change.after = chapter.revision;
      }
      step.undoneAt = null;
      await manager.update(BookStep, { id }, { undoneAt: null, changes: JSON.stringify(changes) });
      const told = changes.map(({ chapterId, links }) => ({ chapterId, links: links.length }));
      return { ...step, chapters: told };
    });
  }

  private async comeOrGo(manager: EntityManager, chapter: Chapter, isThere: boolean): Promise<void> {
    if (isThere !== (chapter.deletedAt === null)) await this.chapters.setPresent(manager, chapter, isThere);
  }

  private async before(
    manager: EntityManager,
    chapter: Chapter,
    { changes }: BookStep,
    at: number,
    change: CountedChange,
  ): Promise<{ text: DerivedChapter; count: number }> {
    if (chapter.revision === change.after) {
      const version = await manager.findOneBy(ChapterVersion, {
        chapterId: chapter.id,
        revision: change.before,
      });
      if (version) {
        return { text: await this.chapters.readText(version.document), count: change.links };
      }
    }
    const edited = await this.edited(chapter, { kind: "take-back", changes, at });
    return edited!;
  }

  /** What a change makes of a chapter's text; null where nothing of it would be another. */
  edited(chapter: Chapter, edit: ChapterEdit): Promise<EditedChapter | null> {
    const { document } = chapter;
    return this.workers.runBySize("editChapter", document.length, { document, edit });
  }

  /** What steps did, chapter by chapter. Each may have changed thousands of links, so the database counts them. */
  private async changesOf(
    ids: readonly string[],
    manager: EntityManager = this.database.manager,
  ): Promise<CountedChange[]> {
    if (ids.length === 0) return [];
    const rows: (Omit<CountedChange, "links"> & { links: string })[] = await manager.query(
      `SELECT s.id AS step, c.chapterId, c.\`before\`, c.after, c.became, COUNT(c.kind) AS links
       FROM book_step s, JSON_TABLE(s.changes, '$[*]' COLUMNS (
         place FOR ORDINALITY,
         chapterId CHAR(36) PATH '$.chapterId',
         \`before\` INT PATH '$.before',
         after INT PATH '$.after',
         became VARCHAR(10) PATH '$.became',
         NESTED PATH '$.links[*]' COLUMNS (kind VARCHAR(10) PATH '$.kind'))) c
       WHERE s.id IN (?) GROUP BY s.id, c.place ORDER BY c.place`,
      [ids],
    );
    return rows.map((row) => ({ ...row, links: Number(row.links) }));
  }
}

/** A step while it is made: chapters are written one after the other, and then it is kept. */
export class StepInProgress {
  /** Each change as JSON: of thousands of links, and nobody here looks into it. */
  private readonly changes: string[] = [];
  private readonly chaptersChanged: { chapterId: string; links: number }[] = [];

  constructor(
    private readonly bookId: string,
    private readonly chapters: ChaptersService,
    private readonly edited: StepsService["edited"],
  ) {}

  /**
   * Changes a chapter, which its caller has locked for it.
   * @returns how many links were changed on purpose
   */
  async change(manager: EntityManager, chapter: Chapter, edit: ChapterEdit): Promise<number> {
    const before = chapter.revision;
    const edited = await this.edited(chapter, edit);
    if (!edited) return 0;
    await this.chapters.write(manager, chapter, edited.text, "always");
    const change = JSON.stringify({ chapterId: chapter.id, before, after: chapter.revision });
    this.changes.push(`${change.slice(0, -1)},"links":${edited.differences}}`);
    this.chaptersChanged.push({ chapterId: chapter.id, links: edited.differing });
    return edited.count;
  }

  /** Takes note of a chapter that the step has made, or taken out of the book. */
  note(chapter: Chapter, became: "new" | "gone"): void {
    const { id: chapterId, revision } = chapter;
    this.changes.push(JSON.stringify({ chapterId, before: revision, after: revision, links: [], became }));
    this.chaptersChanged.push({ chapterId, links: 0 });
  }

  /** Writes the step with all that was changed in it. */
  async end(manager: EntityManager, kind: StepKind, summary: string): Promise<ListedStep> {
    const step = manager.create(BookStep, {
      id: randomUUID(),
      bookId: this.bookId,
      accountId: actingAccount(),
      kind,
      summary,
      changes: `[${this.changes.join(",")}]`,
      createdAt: new Date(),
      undoneAt: null,
    });
    await manager.insert(BookStep, step);
    return { ...step, chapters: this.chaptersChanged };
  }
}
