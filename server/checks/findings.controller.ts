import { Body, Controller, Get, HttpCode, Param, Post } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { StepAnswer } from "../history/history.contract.ts";
import { stepAnswer } from "../history/history.controller.ts";
import { FindingAnswer, MendRequest } from "./findings.contract.ts";
import { FindingsService } from "./findings.service.ts";

@ApiTags("checks")
@Controller("books/:bookId/findings")
export class FindingsController {
  constructor(
    private readonly books: BooksService,
    private readonly findings: FindingsService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [FindingAnswer], description: "What the rules find in the book, gravest first." })
  async list(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<FindingAnswer[]> {
    return this.findings.list(await this.books.own(account, bookId));
  }

  @Post("mend")
  @HttpCode(200)
  @ApiOkResponse({ type: StepAnswer })
  async mend(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: MendRequest,
  ): Promise<StepAnswer> {
    return stepAnswer(await this.findings.mend(await this.books.own(account, bookId), request));
  }
}
