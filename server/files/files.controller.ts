import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
  Query,
  Req,
  Res,
} from "@nestjs/common";
import {
  ApiBody,
  ApiConsumes,
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiQuery,
  ApiTags,
} from "@nestjs/swagger";
import type { Request, Response } from "express";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { Problem } from "../errors/problem.ts";
import { LedgerService } from "../ledger/ledger.service.ts";
import {
  CompanionFileAnswer,
  FileAnswer,
  FilePlacesAnswer,
  RenameFileRequest,
  StoredCompanionAnswer,
  StoredCompanionsAnswer,
} from "./files.dto.ts";
import { FilePlacesService } from "./file-places.service.ts";
import { FilesService } from "./files.service.ts";
import { receiveFiles, takenAndRefused } from "./receive-files.ts";
import type { StoredFile } from "./stored-file.entity.ts";

const fileForm = {
  schema: { type: "object", properties: { file: { type: "string", format: "binary" } } },
} as const;
/** What a browser shows without running anything in it. */
const shownInline = /^(image\/(png|jpeg|gif|webp|avif)|audio\/|video\/|application\/pdf$|text\/plain)/;

@ApiTags("files")
@Controller("books/:bookId")
export class FilesController {
  constructor(
    private readonly files: FilesService,
    private readonly ledger: LedgerService,
    private readonly places: FilePlacesService,
  ) {}

  @Post("pictures")
  @ApiConsumes("multipart/form-data")
  @ApiBody({ schema: { type: "object", properties: { picture: { type: "string", format: "binary" } } } })
  @ApiCreatedResponse({ type: FileAnswer })
  async addPicture(@OpenBook() book: Book, @Req() request: Request): Promise<FileAnswer> {
    const [result] = await receiveFiles(request, (name, content) =>
      this.files.storeSentPicture(book.id, name, content),
    );
    if (!result) throw new Problem(400, "no-file", "Choose a picture.", "picture");
    if (result.status === "rejected") throw result.reason;
    const { id, name, size } = result.value;
    return { id, name, size };
  }

  @Get("files")
  @ApiOkResponse({ type: [CompanionFileAnswer], description: "The companion files, by name." })
  async list(@OpenBook() book: Book): Promise<CompanionFileAnswer[]> {
    const { id } = book;
    const [files, uses] = await Promise.all([this.files.companions(id), this.ledger.usesOfFiles(id)]);
    return files.map((file) => answer(file, uses.get(file.id) ?? 0));
  }

  @Get("files/places")
  @ApiOkResponse({ type: [FilePlacesAnswer], description: "Companion files in which links lead to places." })
  async placesInFiles(@OpenBook() book: Book): Promise<FilePlacesAnswer[]> {
    const all = await this.places.of(book.id);
    return all.map(({ file: { id, name }, places: { pages, places } }) => ({ id, name, pages, places }));
  }

  @Post("files")
  @ApiConsumes("multipart/form-data")
  @ApiBody(fileForm)
  @ApiCreatedResponse({ type: StoredCompanionsAnswer })
  async add(@OpenBook() book: Book, @Req() request: Request): Promise<StoredCompanionsAnswer> {
    const { id } = book;
    const results = await receiveFiles(request, (name, content) =>
      this.files.storeCompanion(id, name, content),
    );
    if (results.length === 0) throw new Problem(400, "no-file", "Choose a file.", "file");
    const { taken, refused } = takenAndRefused(results);
    return { stored: taken.map(({ file, warning }) => ({ file: answer(file, 0), warning })), refused };
  }

  @Put("files/:fileId/content")
  @ApiConsumes("multipart/form-data")
  @ApiBody(fileForm)
  @ApiOkResponse({ type: StoredCompanionAnswer })
  async replace(
    @OpenBook() book: Book,
    @Param("fileId") fileId: string,
    @Req() request: Request,
  ): Promise<StoredCompanionAnswer> {
    const { id } = book;
    await this.files.find(id, fileId, undefined, "companion");
    const [result] = await receiveFiles(request, (_name, content) =>
      this.files.replaceCompanion(id, fileId, content),
    );
    if (!result) throw new Problem(400, "no-file", "Choose a file.", "file");
    if (result.status === "rejected") throw result.reason;
    const uses = await this.ledger.usesOfFiles(id);
    return { file: answer(result.value.file, uses.get(fileId) ?? 0), warning: result.value.warning };
  }

  @Post("files/:fileId/restore")
  @ApiConsumes("multipart/form-data")
  @ApiBody(fileForm)
  @ApiCreatedResponse({ type: StoredCompanionAnswer, description: "A deleted file, back under its id." })
  async restore(
    @OpenBook() book: Book,
    @Param("fileId", ParseUUIDPipe) fileId: string,
    @Req() request: Request,
  ): Promise<StoredCompanionAnswer> {
    const { id } = book;
    const [result] = await receiveFiles(request, (name, content) =>
      this.files.restoreCompanion(id, fileId, name, content),
    );
    if (!result) throw new Problem(400, "no-file", "Choose a file.", "file");
    if (result.status === "rejected") throw result.reason;
    const uses = await this.ledger.usesOfFiles(id);
    return { file: answer(result.value.file, uses.get(fileId) ?? 0), warning: result.value.warning };
  }

  @Patch("files/:fileId")
  @ApiOkResponse({ type: CompanionFileAnswer })
  async rename(
    @OpenBook() book: Book,
    @Param("fileId") fileId: string,
    @Body() request: RenameFileRequest,
  ): Promise<CompanionFileAnswer> {
    const { id } = book;
    const file = await this.files.renameCompanion(id, fileId, request.name);
    return answer(file, (await this.ledger.usesOfFiles(id)).get(fileId) ?? 0);
  }

  @Delete("files/:fileId")
  @HttpCode(204)
  @ApiQuery({ name: "used", required: false, description: "“yes” deletes it even where links lead to it." })
  @ApiNoContentResponse()
  async remove(
    @OpenBook() book: Book,
    @Param("fileId") fileId: string,
    @Query("used") used?: string,
  ): Promise<void> {
    const { id } = book;
    const uses = (await this.ledger.usesOfFiles(id)).get(fileId) ?? 0;
    if (uses > 0 && used !== "yes") {
      throw new Problem(
        409,
        "file-used",
        `${uses === 1 ? "One link leads" : `${uses} links lead`} to this file. Give ${uses === 1 ? "it" : "them"} another destination first, or delete it all the same.`,
      );
    }
    await this.files.removeCompanion(id, fileId);
  }

  @Get("files/:fileId")
  @ApiOkResponse({ schema: { type: "string", format: "binary" } })
  async download(
    @OpenBook() book: Book,
    @Param("fileId") fileId: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const file = await this.files.find(book.id, fileId);
    const tag = `"${file.sha256}"`;
    // A companion file can be replaced under its id; pictures and exports never change.
    const lasting = file.role !== "companion";
    response.setHeader(
      "Cache-Control",
      lasting ? "private, max-age=31536000, immutable" : "private, no-cache",
    );
    response.setHeader("ETag", tag);
    if (request.headers["if-none-match"] === tag) return void response.status(304).end();
    const inline = shownInline.test(file.mediaType);
    if (!inline || file.role === "export") response.attachment(file.name);
    // After attachment(), which sets a type by the name's ending.
    response.setHeader(
      "Content-Type",
      inline && file.mediaType.startsWith("text/") ? "text/plain; charset=utf-8" : file.mediaType,
    );
    response.setHeader("X-Content-Type-Options", "nosniff");
    response.setHeader("Content-Length", file.size);
    this.files
      .stream(file.id)
      .on("error", (error) => response.destroy(error))
      .pipe(response);
  }
}

function answer(file: StoredFile, uses: number): CompanionFileAnswer {
  const { id, name, size, mediaType, sha256, changedAt } = file;
  return { id, name, size, mediaType, sha256, changedAt: changedAt.toISOString(), uses };
}
