import { Injectable } from "@nestjs/common";
import type { BookFinding } from "@vennet/core/checks/check-book";
import type { KnownAnswer } from "@vennet/core/checks/finding";
import { rules } from "@vennet/core/checks/check-chapter";
import { writeDestination } from "@vennet/core/destination/destination";
import type { CompanionFile } from "@vennet/core/manuscript/book";
import type { LinkChange } from "@vennet/core/manuscript/edit-links";
import type { LinkUse } from "@vennet/core/manuscript/links";
import type { Book } from "../books/book.entity.ts";
import { ManuscriptsService } from "../books/manuscripts.service.ts";
import { ChaptersService } from "../chapters/chapters.service.ts";
import { Problem } from "../errors/problem.ts";
import { StepsService, type ListedStep } from "../history/steps.service.ts";
import type { PlainBook } from "../workers/plain-book.ts";
import { FileLinksService } from "../files/file-links.service.ts";
import { FilePlacesService } from "../files/file-places.service.ts";
import { PictureSizesService } from "../files/picture-sizes.service.ts";
import { DriveService } from "../drive/drive.service.ts";
import { DestinationsService } from "../reach/destinations.service.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { AcceptancesService } from "./acceptances.service.ts";
import type { FindingAnswer, MendRequest } from "./findings.dto.ts";

type Found = BookFinding & {
  home: PlainBook["chapters"][number] | null;
  accepted: string | null;
  change: KnownAnswer["change"];
  /** What its mend makes of its link, as it is told. */
  mended: { before: string; after: string } | null;
};

/** Checks whole books by the rules, and puts right what one press can. */
@Injectable()
export class FindingsService {
  constructor(
    private readonly acceptances: AcceptancesService,
    private readonly manuscripts: ManuscriptsService,
    private readonly chapters: ChaptersService,
    private readonly steps: StepsService,
    private readonly workers: WorkerPools,
    private readonly destinations: DestinationsService,
    private readonly drive: DriveService,
    private readonly filePlaces: FilePlacesService,
    private readonly fileLinks: FileLinksService,
    private readonly pictureSizes: PictureSizesService,
  ) {}

  /** What the rules find, gravest first; what was accepted says why. */
  async list(book: Book): Promise<FindingAnswer[]> {
    return (await this.find(book)).map(({ home, accepted, change, mended, ...finding }) => {
      const { rule, title, severity, source, message, subject, link, before, after, isSure } = finding;
      return {
        rule,
        title,
        severity,
        source,
        message,
        subject,
        chapterId: home?.id ?? null,
        chapter: home?.title ?? null,
        text: link?.text ?? null,
        before,
        after,
        mend: mended,
        isSure,
        address: link ? writeDestination(link.destination) : null,
        change,
        accepted,
      };
    });
  }

  private async find(book: Book, only?: string): Promise<Found[]> {
    // What is not known yet of files to whose pages links lead is read first.
    await this.filePlaces.ledInto(book.id);
    await this.fileLinks.readAll(book.id);
    const [manuscript, deadEnds, pictureSizes, answers, shares, acceptances] = await Promise.all([
      this.manuscripts.of(book),
      this.fileLinks.deadEnds(book.id),
      this.pictureSizes.of(book.id),
      this.destinations.answers(book.id),
      this.drive.audiences(),
      this.acceptances.list(book.id),
    ]);
    const found = await this.workers.run("check", {
      book: { ...manuscript, files: withDeadEnds(manuscript.files, deadEnds) },
      known: {
        answers,
        shares,
        pictureSizes,
        audience: book.audience,
        describesAll: book.finished?.isTagged ?? false,
        keepsAnchors: book.finished !== null,
      },
      ...(only === undefined ? {} : { only }),
    });
    const reasons = new Map(acceptances.map(({ subject, rule, reason }) => [`${subject} ${rule}`, reason]));
    return found.map((finding) => ({
      ...finding,
      home: finding.chapter === null ? null : manuscript.chapters[finding.chapter]!,
      mended: finding.link && finding.mend ? told(finding.link, finding.mend, manuscript.files) : null,
      accepted: reasons.get(`${finding.subject} ${finding.rule}`) ?? null,
      change:
        finding.rule === "page-changed" && finding.link
          ? (answers.get(writeDestination(finding.link.destination))?.change ?? null)
          : null,
    }));
  }

  /** Puts right what a rule has found, as one step that can be undone. What was accepted stays. */
  async mend(book: Book, { rule: id, links }: MendRequest): Promise<ListedStep> {
    const rule = rules.find((one) => one.id === id);
    if (!rule?.mend)
      throw new Problem(422, "no-mend", "What this rule finds can only be put right by hand.", "rule");
    const wanted = new Map<string, Map<string, LinkChange>>();
    const named = links && new Set(links.map(({ chapterId, linkId }) => `${chapterId} ${linkId}`));
    for (const { home, subject, mend, isSure, accepted } of await this.find(book, id)) {
      if (!mend || !home || accepted !== null) continue;
      // What is not sure is mended where somebody has looked at it.
      if (named ? !named.has(`${home.id} ${subject}`) : !isSure) continue;
      const changes = wanted.get(home.id);
      if (changes) changes.set(subject, mend);
      else wanted.set(home.id, new Map([[subject, mend]]));
    }
    if (wanted.size === 0)
      throw new Problem(422, "nothing-changes", "There is nothing left to put right here.");
    return this.chapters.changing(book.id, async (manager) => {
      const step = this.steps.begin(book.id);
      let count = 0;
      for (const [chapterId, changes] of wanted) {
        const chapter = await this.chapters.find(manager, book.id, chapterId, true);
        count += await step.change(manager, chapter, { kind: "mend-links", changes });
      }
      const what = count === 1 ? "1 link" : `${count} links`;
      return step.end(
        manager,
        "mend",
        `Mended ${what}: ${rule.title.charAt(0).toLowerCase()}${rule.title.slice(1)}.`,
      );
    });
  }
}

function withDeadEnds(
  files: ReadonlyMap<string, CompanionFile>,
  deadEnds: ReadonlyMap<string, NonNullable<CompanionFile["deadEnds"]>>,
): Map<string, CompanionFile> {
  return new Map(
    [...files].map(([id, file]) => {
      const own = deadEnds.get(id);
      return [id, own ? { ...file, deadEnds: own } : file];
    }),
  );
}

function told(
  link: LinkUse,
  to: LinkChange,
  files: ReadonlyMap<string, CompanionFile>,
): { before: string; after: string } {
  if (to.destination) {
    const file = "file" in to.destination ? files.get(to.destination.file) : undefined;
    return {
      before: writeDestination(link.destination),
      after: file?.name ?? writeDestination(to.destination),
    };
  }
  if (to.look !== undefined) return { before: "a look of its own", after: "that of its kind" };
  if (to.inStructure) return { before: "outside the structure", after: "in the structure" };
  if (to.trim) return { before: link.text, after: link.text.trim() };
  if (to.text !== undefined) return { before: link.text, after: to.text };
  return { before: link.description ?? "", after: to.description ?? "" };
}
