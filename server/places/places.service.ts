import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import type { SignpostList } from "@vennet/core/manuscript/attributes";
import { newId } from "@vennet/core/manuscript/ids";
import { DataSource, type EntityManager } from "typeorm";
import type { Chapter } from "../chapters/chapter.entity.ts";
import { ChaptersService, isWritten } from "../chapters/chapters.service.ts";
import { LinkUse } from "../ledger/link-use.entity.ts";
import { Place } from "../ledger/place.entity.ts";
import { placeFields } from "../ledger/places-of-chapters.ts";
import { chapterOrder } from "../ledger/reading-order.ts";
import type { FoundWords } from "../chapters/found-words.dto.ts";
import { notFound, Problem } from "../errors/problem.ts";
import { lastWithPages } from "../exports/last-with-pages.ts";
import { StepsService, type ListedStep } from "../history/steps.service.ts";
import type { GonePlaceAnswer, PlaceAnswer } from "./places.dto.ts";
import { linksInUse, placesInUse } from "../ledger/rows-in-use.ts";

/** Where links leave dangling when their place goes. */
const nowhere = "nowhere";

/** The landing places of a book: listed with what leads there; anchors renamed, merged and taken out. */
@Injectable()
export class PlacesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly chapters: ChaptersService,
    private readonly steps: StepsService,
  ) {}

  /** Every landing place of a book, in reading order. */
  async list(bookId: string): Promise<PlaceAnswer[]> {
    const pages = await this.pagesInLastPdf(bookId);
    const rows: (Pick<Chapter, "role" | "title" | "words"> &
      Omit<PlaceAnswer, "chapter" | "unwritten" | "uses" | "list"> & {
        uses: string | null;
        list: string | null;
      })[] = await this.database.query(
      `SELECT ${placeFields}, p.chapterId, n.uses, c.role, c.title, c.words
         FROM ${placesInUse}
         LEFT JOIN (SELECT u.placeId, COUNT(*) AS uses
           FROM ${linksInUse}
           WHERE u.bookId = ? AND u.placeId IS NOT NULL GROUP BY u.placeId) n ON n.placeId = p.placeId
         WHERE p.bookId = ? ORDER BY ${chapterOrder.join(", ")}, p.ordinal`,
      [bookId, bookId],
    );
    return rows.map(({ role, title, words, uses, list, ...place }) => ({
      ...place,
      list: list === null ? null : (JSON.parse(list) as SignpostList),
      page: pages[place.id] ?? null,
      uses: Number(uses ?? 0),
      chapter: title,
      role,
      unwritten: role === "companion" && place.kind === "title" && !isWritten({ title, words }),
    }));
  }

  /** What the places were called that links of a book lead to and that are gone, with their chapters or by themselves. */
  async gone(bookId: string): Promise<GonePlaceAnswer[]> {
    return this.database.query(
      `SELECT DISTINCT u.placeId AS id, COALESCE(NULLIF(p.text, ''), g.name) AS name
         FROM ${linksInUse}
         LEFT JOIN place p ON p.bookId = u.bookId AND p.placeId = u.placeId
         LEFT JOIN chapter d ON d.id = p.chapterId
         LEFT JOIN gone_place g ON g.bookId = u.bookId AND g.placeId = u.placeId
         WHERE u.bookId = ? AND u.placeId IS NOT NULL AND (p.placeId IS NULL OR d.deletedAt IS NOT NULL)
         HAVING name IS NOT NULL`,
      [bookId],
    );
  }

  private async pagesInLastPdf(bookId: string): Promise<Record<string, string>> {
    return (await lastWithPages(this.database, bookId))?.pageOfPlace ?? {};
  }

  /**
   * Puts an anchor before words of a chapter, as they stand in a revision of it, and names it by them.
   * @returns its id
   */
  async put(bookId: string, { chapterId, revision, from, to }: FoundWords): Promise<string> {
    return this.chapters.changing(bookId, async (manager) => {
      const chapter = await this.chapters.find(manager, bookId, chapterId, true);
      if (revision !== chapter.revision) {
        throw new Problem(
          409,
          "old-revision",
          `“${chapter.title}” has been changed since it was searched. Look again, then link.`,
        );
      }
      const id = newId();
      const edited = await this.steps.edited(chapter, { kind: "put-anchor", id, from, to });
      await this.chapters.write(manager, chapter, edited!.text);
      return id;
    });
  }

  /** Gives an anchor another name. No word that a reader sees is changed, and every link stays. */
  async rename(bookId: string, id: string, name: string): Promise<void> {
    await this.chapters.changing(bookId, async (manager) => {
      const chapter = await this.chapterOfAnchor(manager, bookId, id);
      const edited = await this.steps.edited(chapter, { kind: "rename-anchor", id, name: name.trim() });
      if (edited) await this.chapters.write(manager, chapter, edited.text);
    });
  }

  /**
   * Takes an anchor out. Links that led there are sent to another place, or left dangling where the
   * author says so; without a word about them a used anchor stays. Merging two anchors is the same.
   */
  async remove(bookId: string, id: string, to?: string): Promise<ListedStep> {
    return this.chapters.changing(bookId, async (manager) => {
      const home = await this.chapterOfAnchor(manager, bookId, id);
      const using = await manager.findBy(LinkUse, { bookId, placeId: id });
      if (using.length > 0 && to === undefined) {
        throw new Problem(
          409,
          "place-used",
          `${using.length === 1 ? "One link leads" : `${using.length} links lead`} to this anchor. Say where ${using.length === 1 ? "it leads" : "they lead"} instead.`,
          "to",
        );
      }
      if (
        to !== undefined &&
        to !== nowhere &&
        (to === id || !(await manager.existsBy(Place, { bookId, placeId: to })))
      )
        throw new Problem(422, "no-place", "The book has no such place to lead to instead.", "to");
      const step = this.steps.begin(bookId);
      const lists = await manager.findBy(Place, { bookId, kind: "signposts" });
      const listing = lists.filter(({ list }) => list?.anchors.includes(id));
      const touched = [...using, ...listing].map(({ chapterId }) => chapterId);
      for (const chapterId of new Set([home.id, ...touched])) {
        // A deleted chapter keeps its links as they are, and may be brought back.
        const chapter = await this.chapters.findPresent(manager, bookId, chapterId);
        if (!chapter) continue;
        await step.change(manager, chapter, {
          kind: "remove-anchor",
          id,
          isHere: chapterId === home.id,
          to: to === undefined || to === nowhere ? null : to,
        });
      }
      const links = using.length === 1 ? "1 link leads" : `${using.length} links lead`;
      const rest =
        using.length === 0 ? "" : to === nowhere ? ` ${links} nowhere now.` : ` ${links} elsewhere now.`;
      return step.end(manager, "anchor", `Took an anchor out.${rest}`);
    });
  }

  private async chapterOfAnchor(manager: EntityManager, bookId: string, id: string): Promise<Chapter> {
    const place = await manager.findOneBy(Place, { bookId, placeId: id });
    if (!place) throw notFound("anchor");
    if (place.kind !== "anchor") {
      throw new Problem(
        422,
        "no-anchor",
        "This is a heading; it is a landing place by itself. Change its words in the text.",
      );
    }
    return this.chapters.find(manager, bookId, place.chapterId, true);
  }
}
