import { Controller, Get, Param } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { SurroundingsAnswer } from "./surroundings.dto.ts";
import { SurroundingsService } from "./surroundings.service.ts";

@ApiTags("checks")
@Controller("books/:bookId/chapters/:chapterId/surroundings")
export class SurroundingsController {
  constructor(private readonly surroundings: SurroundingsService) {}

  @Get()
  @ApiOkResponse({ type: SurroundingsAnswer })
  async read(@OpenBook() book: Book, @Param("chapterId") chapterId: string): Promise<SurroundingsAnswer> {
    return this.surroundings.of(book.id, chapterId);
  }
}
