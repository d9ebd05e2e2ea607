import { tmpdir } from "node:os";
import {
  Body,
  Controller,
  Get,
  HttpCode,
  Post,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from "@nestjs/common";
import { FileInterceptor } from "@nestjs/platform-express";
import { mediaTypeOf } from "@vennet/core/finished/finished-format";
import { ApiAcceptedResponse, ApiBody, ApiConsumes, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { Book } from "../books/book.entity.ts";
import { notFound } from "../errors/problem.ts";
import { FilesService } from "../files/files.service.ts";
import { uploadLimit, type UploadedFile as Uploaded } from "../files/uploaded-file.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { FinishedPageAnswer } from "./finished.dto.ts";
import { FinishedService } from "./finished.service.ts";
import { SavedVersionsService } from "./saved-versions.service.ts";

@ApiTags("finished files")
@Controller()
export class FinishedController {
  constructor(
    private readonly finished: FinishedService,
    private readonly versions: SavedVersionsService,
    private readonly files: FilesService,
  ) {}

  @Post("books/finished")
  @HttpCode(202)
  @UseInterceptors(FileInterceptor("file", { dest: tmpdir(), limits: { fileSize: uploadLimit } }))
  @ApiConsumes("multipart/form-data")
  @ApiBody({
    schema: {
      type: "object",
      properties: { file: { type: "string", format: "binary" }, password: { type: "string" } },
    },
  })
  @ApiAcceptedResponse({ type: JobAnswer, description: "Its links are being read; its job names it then." })
  async bringIn(
    @SignedIn() account: Account,
    @UploadedFile() file: Uploaded | undefined,
    @Body("password") password: unknown,
  ): Promise<JobAnswer> {
    const given = typeof password === "string" ? password.slice(0, 1_000) : "";
    return jobAnswer(await this.finished.begin(account, file, given));
  }

  @Get("books/:bookId/finished/file")
  @ApiOkResponse({
    content: { "application/octet-stream": { schema: { type: "string", format: "binary" } } },
    description: "The file that came, as a PDF or an e-book.",
  })
  file(@OpenBook() book: Book): StreamableFile {
    if (!book.finished) throw notFound("finished file");
    const { fileId, format } = book.finished;
    return new StreamableFile(this.files.stream(fileId), { type: mediaTypeOf(format) });
  }

  @Get("books/:bookId/finished/pages")
  @ApiOkResponse({ type: [FinishedPageAnswer], description: "All pages with their links and places." })
  pages(@OpenBook() book: Book): Promise<FinishedPageAnswer[]> {
    return this.finished.pages(book);
  }

  @Post("books/:bookId/finished/versions")
  @HttpCode(202)
  @ApiAcceptedResponse({ type: JobAnswer, description: "A version is being saved and proven." })
  async save(@OpenBook() book: Book): Promise<JobAnswer> {
    return jobAnswer(await this.versions.begin(book));
  }
}
