import {
  Body,
  Controller,
  Get,
  Header,
  HttpCode,
  Param,
  Post,
  Put,
  Res,
  StreamableFile,
} from "@nestjs/common";
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import type { Response } from "express";
import { OpenBook, OpenManuscript } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { FilesService } from "../files/files.service.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { ExportChoicesShape } from "./export-choices.dto.ts";
import {
  ExportAnswer,
  ExportListingAnswer,
  OpenTextRequest,
  PreflightAnswer,
  WalkRequest,
} from "./exports.dto.ts";
import { ExportHistoryService } from "./export-history.service.ts";
import { ExportsService } from "./exports.service.ts";

@ApiTags("exports")
@Controller("books/:bookId/exports")
export class ExportsController {
  constructor(
    private readonly exports: ExportsService,
    private readonly history: ExportHistoryService,
    private readonly files: FilesService,
    private readonly jobs: JobsService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [ExportListingAnswer] })
  async list(@OpenBook() book: Book): Promise<ExportListingAnswer[]> {
    return this.history.list(book.id);
  }

  @Post()
  @ApiCreatedResponse({ type: JobAnswer })
  async begin(@OpenManuscript() book: Book, @Body() request: ExportChoicesShape): Promise<JobAnswer> {
    return jobAnswer(await this.exports.begin(book, request));
  }

  @Get("latest-job")
  @ApiOkResponse({ type: [JobAnswer], description: "The latest export job, or none." })
  async latest(@OpenBook() book: Book): Promise<JobAnswer[]> {
    const job = await this.jobs.latest(book.id, "export");
    return job ? [jobAnswer(job)] : [];
  }

  @Post("preflight")
  @HttpCode(200)
  @ApiOkResponse({
    type: PreflightAnswer,
    description: "What would stop an export, and what it makes of links.",
  })
  async preflight(
    @OpenManuscript() book: Book,
    @Body() request: ExportChoicesShape,
  ): Promise<PreflightAnswer> {
    return this.exports.preflight(book, request);
  }

  @Post("chapters/:chapterId/pages")
  @HttpCode(200)
  @Header("Content-Type", "application/pdf")
  @ApiOkResponse({ content: { "application/pdf": { schema: { type: "string", format: "binary" } } } })
  async pages(
    @OpenManuscript() book: Book,
    @Param("chapterId") chapterId: string,
    @Body() { document }: OpenTextRequest,
  ): Promise<StreamableFile> {
    return new StreamableFile(await this.exports.setChapter(book, chapterId, document));
  }

  @Get(":exportId")
  @ApiOkResponse({ type: ExportAnswer })
  async one(@OpenBook() book: Book, @Param("exportId") id: string): Promise<ExportAnswer> {
    return this.history.answer(book.id, id);
  }

  @Put(":exportId/walk")
  @HttpCode(204)
  @ApiNoContentResponse()
  async keepWalk(
    @OpenBook() book: Book,
    @Param("exportId") id: string,
    @Body() request: WalkRequest,
  ): Promise<void> {
    await this.history.keepWalk(book.id, id, request);
  }

  @Get(":exportId/proof.csv")
  @Header("Content-Type", "text/csv; charset=utf-8")
  @Header("Content-Disposition", 'attachment; filename="link-proof.csv"')
  @ApiOkResponse({ content: { "text/csv": { schema: { type: "string" } } } })
  async csv(@OpenBook() book: Book, @Param("exportId") id: string): Promise<string> {
    return this.history.proofCsv(book.id, id);
  }

  @Get(":exportId/file")
  @ApiOkResponse({ schema: { type: "string", format: "binary" } })
  async download(
    @OpenBook() book: Book,
    @Param("exportId") id: string,
    @Res() response: Response,
  ): Promise<void> {
    const row = await this.history.find(book.id, id);
    response.attachment(row.fileName);
    response.send(await this.files.read(row.fileId));
  }
}
