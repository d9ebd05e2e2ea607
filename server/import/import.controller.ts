import { tmpdir } from "node:os";
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Post,
  UploadedFiles,
  UseInterceptors,
  applyDecorators,
} from "@nestjs/common";
import { FileFieldsInterceptor } from "@nestjs/platform-express";
import {
  ApiAcceptedResponse,
  ApiBody,
  ApiConsumes,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiTags,
} from "@nestjs/swagger";
import { manuscriptFormatNames } from "@vennet/core/import/formats";
import { OpenBook, OpenJob, OpenManuscript } from "../access/book.guard.ts";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { Book } from "../books/book.entity.ts";
import { uploadLimit } from "../files/uploaded-file.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { ArrivalsService } from "./arrivals.service.ts";
import { ArrivalAnswer, ImportAnswer, ImportRequest, KeepRequest } from "./import.dto.ts";
import { ImportService, type SentFiles } from "./import.service.ts";

/** A form with a manuscript and, beside it, its pictures. */
const ManuscriptForm = (): MethodDecorator =>
  applyDecorators(
    HttpCode(202),
    UseInterceptors(
      FileFieldsInterceptor(
        [
          { name: "manuscript", maxCount: 1 },
          { name: "pictures", maxCount: 500 },
          { name: "files", maxCount: 500 },
        ],
        // To disk: five hundred pictures are more than a server has memory for.
        { dest: tmpdir(), limits: { fileSize: uploadLimit } },
      ),
    ),
    ApiConsumes("multipart/form-data"),
    ApiBody({
      schema: {
        type: "object",
        properties: {
          manuscript: {
            type: "string",
            format: "binary",
            description: `A manuscript: ${manuscriptFormatNames}.`,
          },
          pictures: { type: "array", items: { type: "string", format: "binary" } },
          files: {
            type: "array",
            items: { type: "string", format: "binary" },
            description: "What it shows or links to.",
          },
          title: { type: "string" },
          baseAddress: { type: "string" },
          review: { type: "string", enum: ["yes"] },
          fetchPictures: { type: "string", enum: ["yes"] },
        },
      },
    }),
    ApiAcceptedResponse({ type: JobAnswer, description: "It is being brought in; its job has the result." }),
  );

@ApiTags("import")
@Controller()
export class ImportController {
  constructor(
    private readonly imports: ImportService,
    private readonly arrivals: ArrivalsService,
  ) {}

  @Post("books/import")
  @ManuscriptForm()
  async asBook(
    @SignedIn() account: Account,
    @UploadedFiles() sent: SentFiles | undefined,
    @Body() request: ImportRequest,
  ): Promise<JobAnswer> {
    return this.begin(account, null, sent, request);
  }

  @Post("books/:bookId/import")
  @ManuscriptForm()
  async asChapters(
    @SignedIn() account: Account,
    @OpenManuscript() book: Book,
    @UploadedFiles() sent: SentFiles | undefined,
    @Body() request: ImportRequest,
  ): Promise<JobAnswer> {
    return this.begin(account, book, sent, request);
  }

  @Get("jobs/:jobId/import")
  @ApiOkResponse({ type: ImportAnswer, description: "What an import that has ended came to." })
  result(@OpenJob() job: Job): Promise<ImportAnswer> {
    return this.imports.result(job);
  }

  @Post("jobs/:jobId/import/again")
  @ManuscriptForm()
  async again(
    @OpenJob() job: Job,
    @UploadedFiles() sent: SentFiles | undefined,
    @Body() request: ImportRequest,
  ): Promise<JobAnswer> {
    return jobAnswer(await this.imports.again(job, sent ?? {}, request));
  }

  @Post("jobs/:jobId/import/keep")
  @HttpCode(202)
  @ApiAcceptedResponse({ type: JobAnswer, description: "What was looked at is being kept." })
  async keep(@OpenJob() job: Job, @Body() request: KeepRequest): Promise<JobAnswer> {
    return jobAnswer(await this.imports.keepReviewed(job, request));
  }

  @Delete("jobs/:jobId/import")
  @HttpCode(204)
  @ApiNoContentResponse()
  async drop(@OpenJob() job: Job): Promise<void> {
    await this.imports.dropReviewed(job);
  }

  @Get("jobs/:jobId/import/arrival.csv")
  @Header("Content-Type", "text/csv; charset=utf-8")
  @Header("Content-Disposition", 'attachment; filename="arrival-proof.csv"')
  @ApiOkResponse({ content: { "text/csv": { schema: { type: "string" } } } })
  csv(@OpenJob() job: Job): Promise<string> {
    return this.arrivals.csv(job.id);
  }

  @Get("books/:bookId/arrivals")
  @ApiOkResponse({
    type: [ArrivalAnswer],
    description: "The manuscripts that were brought in, the last first.",
  })
  list(@OpenBook() book: Book): Promise<ArrivalAnswer[]> {
    return this.arrivals.list(book.id);
  }

  private async begin(
    account: Account,
    book: Book | null,
    // Where no form was sent, there are no files either.
    sent: SentFiles = {},
    request: ImportRequest,
  ): Promise<JobAnswer> {
    return jobAnswer(await this.imports.begin(account, book, sent, request));
  }
}
