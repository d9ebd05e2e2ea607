import { Body, Controller, Get, HttpCode, Param, Post } from "@nestjs/common";
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { SavedAnswer } from "../chapters/chapters.contract.ts";
import type { BookStep } from "./book-step.entity.ts";
import {
  NameVersionRequest,
  StepAnswer,
  UndoneAnswer,
  VersionAnswer,
  VersionListingAnswer,
} from "./history.contract.ts";
import { StepsService } from "./steps.service.ts";
import { VersionsService } from "./versions.service.ts";

@ApiTags("history")
@Controller("books/:bookId")
export class HistoryController {
  constructor(
    private readonly books: BooksService,
    private readonly versions: VersionsService,
    private readonly steps: StepsService,
  ) {}

  @Get("chapters/:chapterId/versions")
  @ApiOkResponse({ type: [VersionListingAnswer] })
  async list(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") chapterId: string,
  ): Promise<VersionListingAnswer[]> {
    return this.versions.list((await this.books.own(account, bookId)).id, chapterId);
  }

  @Post("chapters/:chapterId/versions")
  @ApiCreatedResponse({ type: VersionListingAnswer })
  async name(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") chapterId: string,
    @Body() request: NameVersionRequest,
  ): Promise<VersionListingAnswer> {
    const { id } = await this.books.own(account, bookId);
    return this.versions.name(id, chapterId, request.name, request.document);
  }

  @Get("chapters/:chapterId/versions/:versionId")
  @ApiOkResponse({ type: VersionAnswer })
  async read(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") chapterId: string,
    @Param("versionId") versionId: string,
  ): Promise<VersionAnswer> {
    return this.versions.read((await this.books.own(account, bookId)).id, chapterId, versionId);
  }

  @Post("chapters/:chapterId/versions/:versionId/restore")
  @HttpCode(200)
  @ApiOkResponse({ type: SavedAnswer })
  async restore(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") chapterId: string,
    @Param("versionId") versionId: string,
  ): Promise<SavedAnswer> {
    const { id } = await this.books.own(account, bookId);
    return { revision: await this.versions.restore(id, chapterId, versionId) };
  }

  @Get("steps")
  @ApiOkResponse({ type: [StepAnswer], description: "Actions over many links, the newest first." })
  async listSteps(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<StepAnswer[]> {
    return (await this.steps.list((await this.books.own(account, bookId)).id)).map(stepAnswer);
  }

  @Post("steps/:stepId/undo")
  @HttpCode(200)
  @ApiOkResponse({ type: UndoneAnswer })
  async undo(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("stepId") stepId: string,
  ): Promise<UndoneAnswer> {
    const { step, undone, left } = await this.steps.undo((await this.books.own(account, bookId)).id, stepId);
    return { step: stepAnswer(step), undone, left };
  }
}

export function stepAnswer(step: BookStep): StepAnswer {
  const { id, kind, summary, createdAt, undoneAt, changes } = step;
  return {
    id,
    kind,
    summary,
    createdAt: createdAt.toISOString(),
    undoneAt: undoneAt?.toISOString() ?? null,
    chapters: changes.map(({ chapterId, links }) => ({ chapterId, links: links.length })),
  };
}
