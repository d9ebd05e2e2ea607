import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { readChapter } from "@vennet/core/manuscript/chapter";
import type { LinkedPart, LinkEffect, PublicationLink } from "@vennet/core/publication/linked-part";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
import type { Node } from "prosemirror-model";
import { DataSource, type EntityManager } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { actingAccount } from "../access/acting-account.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { BookStep, type ChapterChange, type StepKind } from "./book-step.entity.ts";
import { ChapterVersion } from "./chapter-version.entity.ts";

/** What undoing a step came to. */
export interface Undone {
  step: BookStep;
  /** Links that are as they were before the step. */
  undone: number;
  /** Links that were changed or removed since, and stay as they are. */
  left: number;
}

/** Keeps the actions that change many links, so that each can be undone as one. */
@Injectable()
export class StepsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
  ) {}

  /** Begins a step within a transaction of `ChaptersService.changing`. */
  begin(bookId: string): StepInProgress {
    return new StepInProgress(bookId, this.chapters);
  }

  /** The steps of a book, the newest first. */
  list(bookId: string): Promise<BookStep[]> {
    return this.database.manager.find(BookStep, {
      where: { bookId },
      order: { createdAt: "DESC" },
      take: 100,
    });
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
      for (const change of step.changes) {
        const chapter = await manager.findOneBy(Chapter, { id: change.chapterId });
        if (!chapter) {
          left += change.links.length;
          continue;
        }
        const { part, count } = await this.before(manager, chapter, change);
        undone += count;
        left += change.links.length - count;
        await this.chapters.write(manager, chapter, part.content, "always");
      }
      step.undoneAt = new Date();
      await manager.update(BookStep, { id: step.id }, { undoneAt: step.undoneAt });
      return { step, undone, left };
    });
  }

  private async before(
    manager: EntityManager,
    chapter: Chapter,
    change: ChapterChange,
  ): Promise<{ part: LinkedPart<Node>; count: number }> {
    if (chapter.revision === change.after) {
      const version = await manager.findOneBy(ChapterVersion, {
        chapterId: chapter.id,
        revision: change.before,
      });
      if (version)
        return {
          part: new ManuscriptChapter(readChapter(version.document)),
          count: change.links.length,
        };
    }
    return new ManuscriptChapter(readChapter(chapter.document)).takenBack(change.links);
  }
}

/** A step while it is made: chapters are written one after the other, and then it is kept. */
export class StepInProgress {
  private readonly changes: ChapterChange[] = [];

  constructor(
    private readonly bookId: string,
    private readonly chapters: ChaptersService,
  ) {}

  /**
   * Changes links of a chapter, which is locked for it.
   * @returns how many links changed
   */
  async change(
    manager: EntityManager,
    chapterId: string,
    effectOn: (link: PublicationLink) => LinkEffect,
  ): Promise<number> {
    const chapter = await this.chapters.find(manager, this.bookId, chapterId, true);
    const before = new ManuscriptChapter(readChapter(chapter.document));
    const { part, count } = before.changed(effectOn);
    if (part !== before) await this.write(manager, chapter, before.content, part.content);
    return count;
  }

  /** Writes a chapter's text that was changed otherwise, and notes what became of its links. */
  async write(manager: EntityManager, chapter: Chapter, before: Node, after: Node): Promise<void> {
    const revision = chapter.revision;
    await this.chapters.write(manager, chapter, after, "always");
    const links = new ManuscriptChapter(before).differences(new ManuscriptChapter(after));
    this.changes.push({ chapterId: chapter.id, before: revision, after: chapter.revision, links });
  }

  /** Writes the step with all that was changed in it. */
  async end(manager: EntityManager, kind: StepKind, summary: string): Promise<BookStep> {
    const step = manager.create(BookStep, {
      id: randomUUID(),
      bookId: this.bookId,
      accountId: actingAccount(),
      kind,
      summary,
      changes: this.changes,
      createdAt: new Date(),
      undoneAt: null,
    });
    await manager.insert(BookStep, step);
    return step;
  }
}
