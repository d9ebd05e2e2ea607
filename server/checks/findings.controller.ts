import { Body, Controller, Get, HttpCode, Post } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { StepAnswer } from "../history/history.dto.ts";
import { stepAnswer } from "../history/history.controller.ts";
import { FindingAnswer, MendRequest } from "./findings.dto.ts";
import { FindingsService } from "./findings.service.ts";

@ApiTags("checks")
@Controller("books/:bookId/findings")
export class FindingsController {
  constructor(private readonly findings: FindingsService) {}

  @Get()
  @ApiOkResponse({ type: [FindingAnswer], description: "What the rules find in the book, gravest first." })
  async list(@OpenBook() book: Book): Promise<FindingAnswer[]> {
    return this.findings.list(book);
  }

  @Post("mend")
  @HttpCode(200)
  @ApiOkResponse({ type: StepAnswer })
  async mend(@OpenBook() book: Book, @Body() request: MendRequest): Promise<StepAnswer> {
    return stepAnswer(await this.findings.mend(book, request));
  }
}
