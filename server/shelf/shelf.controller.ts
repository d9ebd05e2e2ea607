import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post, Query } from "@nestjs/common";
import { ApiOkResponse, ApiQuery, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import type { Book } from "../books/book.entity.ts";
import { FileAnswer } from "../files/files.dto.ts";
import type { StoredFile } from "../files/stored-file.entity.ts";
import { FromShelfAnswer, LeadToShelfRequest, LedToShelfAnswer, ShelfPlaceAnswer } from "./shelf.dto.ts";
import { ShelfService } from "./shelf.service.ts";

@ApiTags("shelf")
@Controller("books/:bookId/shelf")
export class ShelfController {
  constructor(private readonly shelf: ShelfService) {}

  @Get("places")
  @ApiQuery({ name: "words", description: "They stand in the names of what is looked for." })
  @ApiOkResponse({
    type: [ShelfPlaceAnswer],
    description: "Other publications of the Shelf, then places of theirs.",
  })
  search(@OpenBook() book: Book, @Query("words") words = ""): Promise<ShelfPlaceAnswer[]> {
    return words.trim() === "" ? Promise.resolve([]) : this.shelf.search(book, words.trim().slice(0, 200));
  }

  @Post("places")
  @HttpCode(200)
  @ApiOkResponse({ type: LedToShelfAnswer })
  async leadTo(@OpenBook() book: Book, @Body() request: LeadToShelfRequest): Promise<LedToShelfAnswer> {
    const { file, at } = await this.shelf.leadTo(book, request);
    return { file: answer(file), at };
  }

  @Get("files")
  @ApiOkResponse({ type: [FromShelfAnswer] })
  files(@OpenBook() book: Book): Promise<FromShelfAnswer[]> {
    return this.shelf.from(book);
  }

  @Post("files/:fileId")
  @HttpCode(200)
  @ApiOkResponse({ type: FileAnswer, description: "The newest file is in its place." })
  async renew(@OpenBook() book: Book, @Param("fileId", ParseUUIDPipe) fileId: string): Promise<FileAnswer> {
    return answer(await this.shelf.renew(book, fileId));
  }
}

function answer({ id, name, size }: StoredFile): FileAnswer {
  return { id, name, size };
}
