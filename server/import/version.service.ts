import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, In, IsNull, type EntityManager } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { Problem } from "../errors/problem.ts";
import { StoredFile } from "../files/stored-file.entity.ts";
import { StepsService, type ListedStep } from "../history/steps.service.ts";
import { Arrival } from "./arrival.entity.ts";
import type { TakenInVersion } from "./take-in-version-task.ts";

/** A book as a new version of its manuscript finds it. */
export interface BookBefore {
  /** Its chapters in their order, without its companion pages. */
  chapters: Pick<Chapter, "id" | "revision" | "document">[];
  /** The documents as they were brought in last, as JSON; null where these are not known. */
  base: string | null;
  /** The ids of its files, by their hashes. */
  files: Record<string, string>;
  /** Its pictures and companion files. */
  kept: StoredFile[];
}

/** Takes new versions of manuscripts into their books, each as one step that is undone as one. */
@Injectable()
export class VersionService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
    private readonly steps: StepsService,
  ) {}

  /** @param fileName of several manuscripts in a book the one that was called so is compared with */
  async before(bookId: string, fileName: string): Promise<BookBefore> {
    const { manager } = this.database;
    const chapters = await manager.find(Chapter, {
      where: { bookId, deletedAt: IsNull() },
      order: { position: "ASC" },
      select: { id: true, revision: true, document: true },
    });
    const arrivals = await manager.find(Arrival, {
      where: { bookId },
      order: { createdAt: "DESC" },
      select: { id: true, fileName: true },
    });
    const last = arrivals.find((one) => one.fileName === fileName) ?? arrivals[0];
    const base = last
      ? await manager.findOne(Arrival, { where: { id: last.id }, select: { id: true, documents: true } })
      : null;
    const kept = await manager.findBy(StoredFile, { bookId, role: In(["companion", "picture"]) });
    return {
      chapters,
      base: base?.documents ?? null,
      files: Object.fromEntries(kept.map(({ id, sha256 }) => [sha256, id])),
      kept,
    };
  }

  /**
   * Writes what a new version does to its book, within a transaction.
   * @throws Problem where a chapter was changed since it was read
   */
  async write(
    manager: EntityManager,
    bookId: string,
    { chapters }: BookBefore,
    { changes }: TakenInVersion,
  ): Promise<ListedStep> {
    // Whoever writes in the book waits for this, as in all that changes its text.
    await manager.update(Book, { id: bookId }, { modifiedAt: new Date() });
    const step = this.steps.begin(bookId);
    const counts = { new: 0, changed: 0, gone: 0, same: 0 };
    /** The chapter behind which the next new one comes, by the one behind which it was found. */
    const lastBehind = new Map<string, string>();
    for (const { at, behind, kind, text, role } of changes) {
      counts[kind] += 1;
      if (kind === "same") continue;
      if (kind === "new") {
        const row = `${behind} ${role === "companion" ? "outside" : "within"} the order`;
        const after = lastBehind.get(row) ?? chapters[behind]?.id ?? null;
        const made = await this.chapters.insertBehind(manager, bookId, after, text!, role);
        lastBehind.set(row, made.id);
        step.note(made, "new");
        continue;
      }
      const { id, revision } = chapters[at!]!;
      const chapter = await this.chapters.findPresent(manager, bookId, id);
      if (chapter?.revision !== revision) throw changedSince();
      if (kind === "changed")
        await step.change(manager, chapter, { kind: "replace", document: text!.document });
      else {
        await this.chapters.setPresent(manager, chapter, false);
        step.note(chapter, "gone");
      }
    }
    const parts = [
      counts.changed > 0 ? `${counts.changed} changed` : "",
      counts.new > 0 ? `${counts.new} new` : "",
      counts.gone > 0 ? `${counts.gone} gone` : "",
    ].filter(Boolean);
    const summary = `Took a new version in: ${parts.length > 0 ? `chapters ${parts.join(", ")}` : "nothing is another"}.`;
    return step.end(manager, "new-version", summary);
  }
}

/** What an author has looked at, told by how often each chapter had been saved. */
export function revisionsOf({ chapters }: BookBefore): string {
  return chapters.map(({ id, revision }) => `${id} ${revision}`).join();
}

export function changedSince(): Problem {
  return new Problem(
    409,
    "changed-since",
    "The book has been changed since you looked at this version. Bring it in again, and look at it as it is now.",
  );
}
