import { Controller, Delete, Get, HttpCode, Param, Post, Req } from "@nestjs/common";
import {
  ApiBody,
  ApiConsumes,
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiTags,
} from "@nestjs/swagger";
import type { Request } from "express";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { Problem } from "../errors/problem.ts";
import { FilesService, type StoredFont } from "../files/files.service.ts";
import { receiveFiles, takenAndRefused } from "../files/receive-files.ts";
import { FontAnswer, StoredFontsAnswer } from "./fonts.dto.ts";
import { FontsService } from "./fonts.service.ts";

@ApiTags("fonts")
@Controller("books/:bookId/fonts")
export class FontsController {
  constructor(
    private readonly fonts: FontsService,
    private readonly files: FilesService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [FontAnswer], description: "The fonts that the author brought, by family." })
  async list(@OpenBook() book: Book): Promise<FontAnswer[]> {
    return (await this.files.fonts(book.id)).map(answer);
  }

  @Post()
  @ApiConsumes("multipart/form-data")
  @ApiBody({ schema: { type: "object", properties: { font: { type: "string", format: "binary" } } } })
  @ApiCreatedResponse({ type: StoredFontsAnswer })
  async add(@OpenBook() book: Book, @Req() request: Request): Promise<StoredFontsAnswer> {
    const results = await receiveFiles(request, (name, content) => this.fonts.store(book.id, name, content));
    if (results.length === 0) throw new Problem(400, "no-file", "Choose a font file (TTF or OTF).", "fonts");
    const { taken, refused } = takenAndRefused(results);
    return { stored: taken.map(answer), refused };
  }

  @Delete(":fontId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async remove(@OpenBook() book: Book, @Param("fontId") fontId: string): Promise<void> {
    await this.fonts.remove(book.id, fontId);
  }
}

function answer({ id, name, size, font }: StoredFont): FontAnswer {
  return { id, name, size, ...font };
}
