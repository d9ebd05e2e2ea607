import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, IsNull } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { Problem } from "../errors/problem.ts";
import type { StepKind } from "../history/book-step.entity.ts";
import { StepsService, type ListedStep } from "../history/steps.service.ts";
import { LedgerService } from "../ledger/ledger.service.ts";
import { lettersOf } from "../workers/long-texts.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { effectOf } from "./link-effects.ts";
import type {
  AddLinksRequest,
  BulkEditRequest,
  EditPreviewAnswer,
  LinkEdit,
  LinkName,
  NewLink,
} from "./links.dto.ts";

/**
 * Edits many links as one action: each chapter's document is changed through the model, saved under a new
 * revision with the old one kept, and the whole is one step that can be undone.
 */
@Injectable()
export class BulkEditsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
    private readonly ledger: LedgerService,
    private readonly steps: StepsService,
    private readonly workers: WorkerPools,
  ) {}

  /** What an edit would do to each link, without doing it. */
  async preview(bookId: string, request: BulkEditRequest): Promise<EditPreviewAnswer> {
    const { edit } = request;
    effectOf(edit);
    const wanted = await this.wanted(bookId, request);
    const chapters = await this.database.manager.findBy(Chapter, { bookId, deletedAt: IsNull() });
    chapters.sort((a, b) => a.position - b.position);
    const touched = chapters.flatMap(({ id, title, document }) => {
      const ids = wanted.get(id);
      return ids ? [{ id, title, document, ids }] : [];
    });
    return this.workers.runBySize("previewEdit", lettersOf(touched), { chapters: touched, edit });
  }

  /**
   * Changes the links as one step.
   * @throws Problem `nothing-changes` where none of them would become another
   */
  async apply(bookId: string, request: BulkEditRequest): Promise<ListedStep> {
    const { edit } = request;
    // What it does not say is told before anything is changed.
    effectOf(edit);
    const wanted = await this.wanted(bookId, request);
    return this.chapters.changing(bookId, async (manager) => {
      const step = this.steps.begin(bookId);
      let changed = 0;
      for (const [chapterId, ids] of wanted) {
        const chapter = await this.chapters.find(manager, bookId, chapterId, true);
        changed += await step.change(manager, chapter, { kind: "edit-links", ids, edit });
      }
      if (changed === 0) throw new Problem(422, "nothing-changes", "None of these links would change.");
      return step.end(manager, stepKinds[edit.kind], summary(edit, changed));
    });
  }

  /** Links ranges of chapters as they were found, each chapter in the revision in which it was searched. */
  async add(bookId: string, request: AddLinksRequest): Promise<ListedStep> {
    const byChapter = new Map<string, NewLink[]>();
    for (const link of request.links) {
      const list = byChapter.get(link.chapterId);
      if (list) list.push(link);
      else byChapter.set(link.chapterId, [link]);
    }
    if (byChapter.size === 0) throw new Problem(422, "nothing-changes", "Tick at least one place to link.");
    return this.chapters.changing(bookId, async (manager) => {
      const step = this.steps.begin(bookId);
      for (const [chapterId, links] of byChapter) {
        const chapter = await this.chapters.find(manager, bookId, chapterId, true);
        if (links.some(({ revision }) => revision !== chapter.revision)) {
          throw new Problem(
            409,
            "old-revision",
            `“${chapter.title}” has been changed since it was searched. Look again, then link.`,
          );
        }
        const ranges = links.map(({ from, to, destination }) => ({ from, to, destination }));
        await step.change(manager, chapter, {
          kind: "link-ranges",
          ranges,
          description: request.description ?? null,
        });
      }
      const count = request.links.length;
      const where = `${count} ${count === 1 ? "place" : "places"} in ${byChapter.size} ${byChapter.size === 1 ? "chapter" : "chapters"}`;
      const of = request.of ? `“${request.of}”` : request.kind === "addresses" ? "addresses" : "words";
      return step.end(manager, request.kind, `Linked ${of} in ${where}.`);
    });
  }

  /** The links that a request means, by chapter. */
  private async wanted(bookId: string, request: BulkEditRequest): Promise<Map<string, Set<string>>> {
    const names: LinkName[] =
      request.links ?? (request.matching ? await this.ledger.names(bookId, request.matching) : []);
    if (names.length === 0) throw new Problem(422, "no-links", "Choose at least one link.");
    const byChapter = new Map<string, Set<string>>();
    for (const { chapterId, linkId } of names) {
      const ids = byChapter.get(chapterId);
      if (ids) ids.add(linkId);
      else byChapter.set(chapterId, new Set([linkId]));
    }
    return byChapter;
  }
}

const stepKinds: Record<LinkEdit["kind"], StepKind> = {
  retarget: "retarget",
  host: "retarget",
  base: "retarget",
  remove: "remove",
  describe: "describe",
  words: "words",
  change: "change",
};

function summary(edit: LinkEdit, count: number): string {
  const links = count === 1 ? "1 link" : `${count} links`;
  switch (edit.kind) {
    case "remove":
      return `Removed ${links}; the words stay.`;
    case "describe":
      return edit.description ? `Described ${links}.` : `Took the description from ${links}.`;
    case "host":
      return `Sent ${links} from ${edit.from!} to ${edit.to!}.`;
    case "base":
      return `Made web links of ${links}, from ${edit.base!}.`;
    case "words":
      return `Gave ${links} other words.`;
    case "retarget":
      return `Gave ${links} another destination.`;
    case "change":
      return `Changed ${links}.`;
  }
}
