import { tmpdir } from "node:os";
import {
  Body,
  Controller,
  Get,
  HttpCode,
  Post,
  UploadedFiles,
  UseInterceptors,
  applyDecorators,
} from "@nestjs/common";
import { FileFieldsInterceptor } from "@nestjs/platform-express";
import { ApiAcceptedResponse, ApiBody, ApiConsumes, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { manuscriptFormatNames } from "@vennet/core/import/formats";
import { OpenBook, OpenJob } from "../access/book.guard.ts";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { Book } from "../books/book.entity.ts";
import { uploadLimit, type UploadedFile } from "../files/uploaded-file.ts";
import { Job } from "../jobs/job.entity.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { ImportAnswer, ImportRequest } from "./import.dto.ts";
import { ImportService } from "./import.service.ts";

interface SentFiles {
  manuscript?: UploadedFile[];
  pictures?: UploadedFile[];
}

/** A form with a manuscript and, beside it, its pictures. */
const ManuscriptForm = (): MethodDecorator =>
  applyDecorators(
    HttpCode(202),
    UseInterceptors(
      FileFieldsInterceptor(
        [
          { name: "manuscript", maxCount: 1 },
          { name: "pictures", maxCount: 500 },
        ],
        // To disk: five hundred pictures are more than a server has memory for.
        { dest: tmpdir(), limits: { fileSize: uploadLimit } },
      ),
    ),
    ApiConsumes("multipart/form-data"),
    ApiBody({
      schema: {
        type: "object",
        required: ["manuscript"],
        properties: {
          manuscript: {
            type: "string",
            format: "binary",
            description: `A manuscript: ${manuscriptFormatNames}.`,
          },
          pictures: { type: "array", items: { type: "string", format: "binary" } },
          title: { type: "string" },
          baseAddress: { type: "string" },
        },
      },
    }),
    ApiAcceptedResponse({ type: JobAnswer, description: "It is being brought in; its job has the result." }),
  );

@ApiTags("import")
@Controller()
export class ImportController {
  constructor(private readonly imports: ImportService) {}

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
    @OpenBook() book: Book,
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

  private async begin(
    account: Account,
    book: Book | null,
    // Where no form was sent, there are no files either.
    { manuscript = [], pictures = [] }: SentFiles = {},
    request: ImportRequest,
  ): Promise<JobAnswer> {
    return jobAnswer(await this.imports.begin(account, book, manuscript[0], pictures, request));
  }
}
