import { Body, Controller, Get, Header, HttpCode, Param, Post, Res, StreamableFile } from "@nestjs/common";
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import type { Response } from "express";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { FilesService } from "../files/files.service.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import {
  ExportAnswer,
  ExportListingAnswer,
  ExportRequest,
  OpenTextRequest,
  PreflightAnswer,
} from "./exports.contract.ts";
import { ExportsService } from "./exports.service.ts";

@ApiTags("exports")
@Controller("books/:bookId/exports")
export class ExportsController {
  constructor(
    private readonly books: BooksService,
    private readonly exports: ExportsService,
    private readonly files: FilesService,
    private readonly jobs: JobsService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [ExportListingAnswer] })
  async list(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<ExportListingAnswer[]> {
    return this.exports.list((await this.books.own(account, bookId)).id);
  }

  @Post()
  @ApiCreatedResponse({ type: JobAnswer })
  async begin(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: ExportRequest,
  ): Promise<JobAnswer> {
    return jobAnswer(await this.exports.begin(await this.books.own(account, bookId), request));
  }

  @Get("latest-job")
  @ApiOkResponse({ type: [JobAnswer], description: "The latest export job, or none." })
  async latest(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<JobAnswer[]> {
    const job = await this.jobs.latest((await this.books.own(account, bookId)).id, "export");
    return job ? [jobAnswer(job)] : [];
  }

  @Post("preflight")
  @HttpCode(200)
  @ApiOkResponse({
    type: PreflightAnswer,
    description: "What would stop an export, and what it makes of links.",
  })
  async preflight(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: ExportRequest,
  ): Promise<PreflightAnswer> {
    return this.exports.preflight(await this.books.own(account, bookId), request);
  }

  @Post("chapters/:chapterId/pages")
  @HttpCode(200)
  @Header("Content-Type", "application/pdf")
  @ApiOkResponse({ content: { "application/pdf": { schema: { type: "string", format: "binary" } } } })
  async pages(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") chapterId: string,
    @Body() { document }: OpenTextRequest,
  ): Promise<StreamableFile> {
    const book = await this.books.own(account, bookId);
    return new StreamableFile(await this.exports.setChapter(book, chapterId, document));
  }

  @Get(":exportId")
  @ApiOkResponse({ type: ExportAnswer })
  async one(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("exportId") id: string,
  ): Promise<ExportAnswer> {
    return this.exports.answer((await this.books.own(account, bookId)).id, id);
  }

  @Get(":exportId/proof.csv")
  @Header("Content-Type", "text/csv; charset=utf-8")
  @Header("Content-Disposition", 'attachment; filename="link-proof.csv"')
  @ApiOkResponse({ content: { "text/csv": { schema: { type: "string" } } } })
  async csv(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("exportId") id: string,
  ): Promise<string> {
    return this.exports.proofCsv((await this.books.own(account, bookId)).id, id);
  }

  @Get(":exportId/file")
  @ApiOkResponse({ schema: { type: "string", format: "binary" } })
  async download(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("exportId") id: string,
    @Res() response: Response,
  ): Promise<void> {
    const row = await this.exports.find((await this.books.own(account, bookId)).id, id);
    response.attachment(row.fileName);
    response.send(await this.files.read(row.fileId));
  }
}
