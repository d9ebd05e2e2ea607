import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { sameDestination } from "@vennet/core/destination/destination";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { changeLink, unlink } from "@vennet/core/manuscript/edit-links";
import { linkUses } from "@vennet/core/manuscript/links";
import { linkDifferences, type LinkDifference } from "@vennet/core/manuscript/versions";
import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { DataSource, type EntityManager } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
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
        const [doc, count] = await this.before(manager, chapter, change);
        undone += count;
        left += change.links.length - count;
        await this.chapters.write(manager, chapter, doc, "always");
      }
      step.undoneAt = new Date();
      await manager.save(BookStep, step);
      return { step, undone, left };
    });
  }

  private async before(
    manager: EntityManager,
    chapter: Chapter,
    change: ChapterChange,
  ): Promise<[doc: Node, undone: number]> {
    if (chapter.revision === change.after) {
      const version = await manager.findOneBy(ChapterVersion, {
        chapterId: chapter.id,
        revision: change.before,
      });
      if (version) return [readChapter(version.document), change.links.length];
    }
    const transform = new Transform(readChapter(chapter.document));
    const undone = change.links.filter((difference) => takeBack(transform, difference)).length;
    return [transform.doc, undone];
  }
}

/** A step while it is made: chapters are written one after the other, and then it is kept. */
export class StepInProgress {
  private readonly changes: ChapterChange[] = [];

  constructor(
    private readonly bookId: string,
    private readonly chapters: ChaptersService,
  ) {}

  async write(manager: EntityManager, chapter: Chapter, before: Node, after: Node): Promise<void> {
    const revision = chapter.revision;
    await this.chapters.write(manager, chapter, after, "always");
    const links = linkDifferences(before, after);
    this.changes.push({ chapterId: chapter.id, before: revision, after: chapter.revision, links });
  }

  async end(manager: EntityManager, kind: StepKind, summary: string): Promise<BookStep> {
    const step = manager.create(BookStep, {
      id: randomUUID(),
      bookId: this.bookId,
      kind,
      summary,
      changes: this.changes,
      createdAt: new Date(),
      undoneAt: null,
    });
    await manager.save(BookStep, step);
    return step;
  }
}

/** Takes one link's change back, if the link is still as the change left it. */
function takeBack(change: Transform, difference: LinkDifference): boolean {
  // Where a removed link stood nobody can say once the text was changed.
  if (difference.is === "removed") return false;
  const { after } = difference;
  const use = linkUses(change.doc).find(({ id }) => id === after.id);
  if (!use || !sameDestination(use.destination, after.destination)) return false;
  if (difference.is === "added") unlink(change, use);
  else {
    const { destination, description, text } = difference.before;
    const words = text === after.text || use.text !== after.text ? {} : { text };
    changeLink(change, use, { destination, description, ...words });
  }
  return true;
}
