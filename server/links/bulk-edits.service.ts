import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { sameDestination, writeDestination } from "@vennet/core/destination/destination";
import { webDestination } from "@vennet/core/destination/kinds/web";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { readChapter } from "@vennet/core/manuscript/chapter";
import { changeLink, giveOwnIds, linkRange, type LinkChange } from "@vennet/core/manuscript/edit-links";
import { linkUses } from "@vennet/core/manuscript/links";
import type { LinkEffect, PublicationLink } from "@vennet/core/publication/linked-part";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
import { Transform } from "prosemirror-transform";
import { DataSource, IsNull } from "typeorm";
import { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { Problem } from "../errors/problem.ts";
import type { BookStep, StepKind } from "../history/book-step.entity.ts";
import { StepsService } from "../history/steps.service.ts";
import { LedgerService } from "../ledger/ledger.service.ts";
import type {
  AddLinksRequest,
  BulkEditRequest,
  EditPreviewAnswer,
  LinkEdit,
  LinkName,
  NewLink,
} from "./links.dto.ts";

const previewed = 500;

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
  ) {}

  /** What an edit would do to each link, without doing it. */
  async preview(bookId: string, request: BulkEditRequest): Promise<EditPreviewAnswer> {
    const answer: EditPreviewAnswer = { rows: [], changing: 0, unchanged: 0 };
    const effectOn = effectOf(request.edit);
    const wanted = await this.wanted(bookId, request);
    const chapters = await this.database.manager.findBy(Chapter, { bookId, deletedAt: IsNull() });
    chapters.sort((a, b) => a.position - b.position);
    for (const chapter of chapters) {
      const ids = wanted.get(chapter.id);
      if (!ids) continue;
      for (const use of new ManuscriptChapter(readChapter(chapter.document)).links()) {
        if (!ids.has(use.id)) continue;
        const effect = effectOn(use);
        if (effect === null) {
          answer.unchanged++;
          continue;
        }
        answer.changing++;
        if (answer.rows.length === previewed) continue;
        const { id: linkId, text } = use;
        answer.rows.push({
          chapterId: chapter.id,
          linkId,
          chapter: chapter.title,
          text,
          ...told(use, effect),
        });
      }
    }
    return answer;
  }

  /**
   * Changes the links as one step.
   * @throws Problem `nothing-changes` where none of them would become another
   */
  async apply(bookId: string, request: BulkEditRequest): Promise<BookStep> {
    const effectOn = effectOf(request.edit);
    const wanted = await this.wanted(bookId, request);
    return this.chapters.changing(bookId, async (manager) => {
      const step = this.steps.begin(bookId);
      let changed = 0;
      for (const [chapterId, ids] of wanted) {
        changed += await step.change(manager, chapterId, (link) =>
          ids.has(link.id) ? effectOn(link) : null,
        );
      }
      if (changed === 0) throw new Problem(422, "nothing-changes", "None of these links would change.");
      return step.end(manager, stepKinds[request.edit.kind], summary(request.edit, changed));
    });
  }

  /** Links ranges of chapters as they were found, each chapter in the revision in which it was searched. */
  async add(bookId: string, request: AddLinksRequest): Promise<BookStep> {
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
        const before = readChapter(chapter.document);
        const change = new Transform(before);
        for (const { from, to, destination } of links) {
          if (to > before.content.size || from >= to)
            throw new Problem(422, "range", "A place to link lies outside of its chapter.");
          const around = linkUses(change.doc).find(
            (use) => use.on !== "hotspot" && use.from <= from && to <= use.to,
          );
          if (around) changeLink(change, around, { destination });
          else linkRange(change, from, to, { destination, description: request.description ?? null });
        }
        giveOwnIds(change);
        if (change.docChanged) await step.write(manager, chapter, before, change.doc);
      }
      const count = request.links.length;
      const where = `${count} ${count === 1 ? "place" : "places"} in ${byChapter.size} ${byChapter.size === 1 ? "chapter" : "chapters"}`;
      const of = request.of ? `“${request.of}”` : "words";
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
  remove: "remove",
  describe: "describe",
  words: "words",
  change: "change",
};

function effectOf(edit: LinkEdit): (use: PublicationLink) => LinkEffect {
  const effect = effectOnWords(edit);
  // A cross-reference has nothing but its place: it can follow another, and has no words to keep.
  const canFollow =
    (edit.kind === "retarget" || edit.kind === "change") && edit.destination?.kind === "place";
  return (use) => (use.on === "reference" && !canFollow ? null : effect(use));
}

function effectOnWords(edit: LinkEdit): (use: PublicationLink) => LinkEffect {
  switch (edit.kind) {
    case "remove":
      return () => "remove";
    case "describe": {
      const description = edit.description?.trim() || null;
      return (use) => (use.description === description ? null : { description });
    }
    case "words": {
      const text = edit.text?.trim() ?? "";
      if (text === "") throw new Problem(400, "no-words", "A link needs words to stand on.", "text");
      return (use) => (use.text === text ? null : { text });
    }
    case "retarget": {
      const { destination } = edit;
      if (!destination)
        throw new Problem(400, "no-destination", "Say where the links lead then.", "destination");
      return (use) => (sameDestination(use.destination, destination) ? null : { destination });
    }
    case "change":
      return (use) => changeOf(edit, use);
    case "host": {
      const [from, to] = [readHost(edit.from, "from"), readHost(edit.to, "to")];
      return (use) => onOtherHost(use.destination, from, to);
    }
  }
}

/** What of a change of words, destination and description is new to a link, as one. */
function changeOf({ destination, text, description }: LinkEdit, use: PublicationLink): LinkEffect {
  const words = text?.trim();
  const change: LinkChange = {
    ...(destination && !sameDestination(use.destination, destination) ? { destination } : {}),
    ...(words && words !== use.text ? { text: words } : {}),
    ...(description !== undefined && (description?.trim() || null) !== use.description
      ? { description: description?.trim() || null }
      : {}),
  };
  return Object.keys(change).length > 0 ? change : null;
}

function readHost(given: string | undefined, field: string): string {
  const text = (given ?? "")
    .trim()
    .replace(/^https?:\/\//i, "")
    .replace(/\/.*$/s, "");
  if (text === "" || !URL.canParse(`https://${text}`))
    throw new Problem(400, "host", `“${given ?? ""}” is not a host, such as tides.hesterley.example.`, field);
  return new URL(`https://${text}`).host;
}

function onOtherHost(destination: Destination, from: string, to: string): LinkEffect {
  if (destination.kind !== "web") return null;
  const url = new URL(destination.address);
  if (url.host !== from) return null;
  url.host = to;
  const next = webDestination(url.href);
  return sameDestination(destination, next) ? null : { destination: next };
}

function told(use: PublicationLink, effect: Exclude<LinkEffect, null>): { before: string; after: string } {
  if (effect === "remove") return { before: writeDestination(use.destination), after: "" };
  if (effect.destination)
    return { before: writeDestination(use.destination), after: writeDestination(effect.destination) };
  if (effect.text !== undefined) return { before: use.text, after: effect.text };
  return { before: use.description ?? "", after: effect.description ?? "" };
}

function summary(edit: LinkEdit, count: number): string {
  const links = count === 1 ? "1 link" : `${count} links`;
  switch (edit.kind) {
    case "remove":
      return `Removed ${links}; the words stay.`;
    case "describe":
      return edit.description ? `Described ${links}.` : `Took the description from ${links}.`;
    case "host":
      return `Sent ${links} from ${edit.from!} to ${edit.to!}.`;
    case "words":
      return `Gave ${links} other words.`;
    case "retarget":
      return `Gave ${links} another destination.`;
    case "change":
      return `Changed ${links}.`;
  }
}
