import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Patch,
  Post,
  UploadedFiles,
  UseInterceptors,
} from "@nestjs/common";
import { FileFieldsInterceptor } from "@nestjs/platform-express";
import {
  ApiBody,
  ApiConsumes,
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiTags,
} from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import {
  BookAnswer,
  ChangeBookRequest,
  ImportAnswer,
  ImportRequest,
  NewBookRequest,
} from "./books.contract.ts";
import { uploadLimit, type UploadedFile } from "../files/uploaded-file.ts";
import { BooksService } from "./books.service.ts";

@ApiTags("books")
@Controller("books")
export class BooksController {
  constructor(private readonly books: BooksService) {}

  @Get()
  @ApiOkResponse({ type: [BookAnswer] })
  list(@SignedIn() account: Account): Promise<BookAnswer[]> {
    return this.books.list(account);
  }

  @Post()
  @ApiCreatedResponse({ type: BookAnswer })
  create(@SignedIn() account: Account, @Body() request: NewBookRequest): Promise<BookAnswer> {
    return this.books.create(account, request);
  }

  @Post("import")
  @UseInterceptors(
    FileFieldsInterceptor(
      [
        { name: "manuscript", maxCount: 1 },
        { name: "pictures", maxCount: 500 },
      ],
      {
        limits: { fileSize: uploadLimit },
      },
    ),
  )
  @ApiConsumes("multipart/form-data")
  @ApiBody({
    schema: {
      type: "object",
      required: ["manuscript"],
      properties: {
        manuscript: { type: "string", format: "binary", description: "A Markdown file in UTF-8." },
        pictures: { type: "array", items: { type: "string", format: "binary" } },
        title: { type: "string" },
        baseAddress: { type: "string" },
      },
    },
  })
  @ApiCreatedResponse({ type: ImportAnswer })
  import(
    @SignedIn() account: Account,
    @UploadedFiles() files: { manuscript?: UploadedFile[]; pictures?: UploadedFile[] },
    @Body() request: ImportRequest,
  ): Promise<ImportAnswer> {
    return this.books.import(account, files.manuscript?.[0], files.pictures ?? [], request);
  }

  @Get(":bookId")
  @ApiOkResponse({ type: BookAnswer })
  async one(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<BookAnswer> {
    return this.books.answer(await this.books.own(account, bookId));
  }

  @Patch(":bookId")
  @ApiOkResponse({ type: BookAnswer })
  async change(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: ChangeBookRequest,
  ): Promise<BookAnswer> {
    return this.books.change(await this.books.own(account, bookId), request);
  }

  @Delete(":bookId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async remove(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<void> {
    await this.books.remove(await this.books.own(account, bookId));
  }
}
