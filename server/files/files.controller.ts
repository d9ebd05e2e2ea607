import { Controller, Get, Param, Post, Res, UploadedFile, UseInterceptors } from "@nestjs/common";
import { FileInterceptor } from "@nestjs/platform-express";
import {
  ApiBody,
  ApiConsumes,
  ApiCreatedResponse,
  ApiOkResponse,
  ApiProperty,
  ApiTags,
} from "@nestjs/swagger";
import type { Response } from "express";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { Problem } from "../errors/problem.ts";
import { FilesService } from "./files.service.ts";
import { uploadedName, uploadLimit, type UploadedFile as Uploaded } from "./uploaded-file.ts";

export class FileAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  name: string;
  @ApiProperty()
  size: number;
}

@ApiTags("files")
@Controller("books/:bookId")
export class FilesController {
  constructor(
    private readonly books: BooksService,
    private readonly files: FilesService,
  ) {}

  @Post("pictures")
  @UseInterceptors(FileInterceptor("picture", { limits: { fileSize: uploadLimit } }))
  @ApiConsumes("multipart/form-data")
  @ApiBody({ schema: { type: "object", properties: { picture: { type: "string", format: "binary" } } } })
  @ApiCreatedResponse({ type: FileAnswer })
  async addPicture(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @UploadedFile() picture: Uploaded | undefined,
  ): Promise<FileAnswer> {
    const book = await this.books.own(account, bookId);
    if (!picture) throw new Problem(400, "no-file", "Choose a picture.", "picture");
    const file = await this.files.storePicture(book.id, uploadedName(picture), picture.buffer);
    return { id: file.id, name: file.name, size: file.size };
  }

  @Get("files/:fileId")
  @ApiOkResponse({ schema: { type: "string", format: "binary" } })
  async download(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("fileId") fileId: string,
    @Res() response: Response,
  ): Promise<void> {
    const file = await this.files.find((await this.books.own(account, bookId)).id, fileId);
    const bytes = await this.files.read(file.id);
    response.type(file.mediaType);
    response.setHeader("X-Content-Type-Options", "nosniff");
    // A stored file never changes under its id.
    response.setHeader("Cache-Control", "private, max-age=31536000, immutable");
    if (!file.mediaType.startsWith("image/")) response.attachment(file.name);
    response.send(bytes);
  }
}
