import { Body, Controller, Get, HttpCode, Param, Post } from "@nestjs/common";
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { SavedAnswer } from "../chapters/chapters.dto.ts";
import {
  NameVersionRequest,
  StepAnswer,
  UndoneAnswer,
  VersionAnswer,
  VersionListingAnswer,
} from "./history.dto.ts";
import { StepsService, type ListedStep } from "./steps.service.ts";
import { VersionsService } from "./versions.service.ts";

@ApiTags("history")
@Controller("books/:bookId")
export class HistoryController {
  constructor(
    private readonly versions: VersionsService,
    private readonly steps: StepsService,
  ) {}

  @Get("chapters/:chapterId/versions")
  @ApiOkResponse({ type: [VersionListingAnswer] })
  async list(@OpenBook() book: Book, @Param("chapterId") chapterId: string): Promise<VersionListingAnswer[]> {
    return this.versions.list(book.id, chapterId);
  }

  @Post("chapters/:chapterId/versions")
  @ApiCreatedResponse({ type: VersionListingAnswer })
  async name(
    @OpenBook() book: Book,
    @Param("chapterId") chapterId: string,
    @Body() request: NameVersionRequest,
  ): Promise<VersionListingAnswer> {
    const { id } = book;
    return this.versions.name(id, chapterId, request.name, request.document);
  }

  @Get("chapters/:chapterId/versions/:versionId")
  @ApiOkResponse({ type: VersionAnswer })
  async read(
    @OpenBook() book: Book,
    @Param("chapterId") chapterId: string,
    @Param("versionId") versionId: string,
  ): Promise<VersionAnswer> {
    return this.versions.read(book.id, chapterId, versionId);
  }

  @Post("chapters/:chapterId/versions/:versionId/restore")
  @HttpCode(200)
  @ApiOkResponse({ type: SavedAnswer })
  async restore(
    @OpenBook() book: Book,
    @Param("chapterId") chapterId: string,
    @Param("versionId") versionId: string,
  ): Promise<SavedAnswer> {
    const { id } = book;
    return { revision: await this.versions.restore(id, chapterId, versionId) };
  }

  @Get("steps")
  @ApiOkResponse({ type: [StepAnswer], description: "Actions over many links, the newest first." })
  async listSteps(@OpenBook() book: Book): Promise<StepAnswer[]> {
    return (await this.steps.list(book.id)).map(stepAnswer);
  }

  @Post("steps/:stepId/undo")
  @HttpCode(200)
  @ApiOkResponse({ type: UndoneAnswer })
  async undo(@OpenBook() book: Book, @Param("stepId") stepId: string): Promise<UndoneAnswer> {
    const { step, undone, left } = await this.steps.undo(book.id, stepId);
    return { step: stepAnswer(step), undone, left };
  }

  @Post("steps/:stepId/redo")
  @HttpCode(200)
  @ApiOkResponse({ type: StepAnswer, description: "A step that was undone, done again." })
  async redo(@OpenBook() book: Book, @Param("stepId") stepId: string): Promise<StepAnswer> {
    return stepAnswer(await this.steps.redo(book.id, stepId));
  }
}

/** A step as the interface tells it. */
export function stepAnswer({ id, kind, summary, createdAt, undoneAt, chapters }: ListedStep): StepAnswer {
  return {
    id,
    kind,
    summary,
    createdAt: createdAt.toISOString(),
    undoneAt: undoneAt?.toISOString() ?? null,
    chapters,
  };
}
