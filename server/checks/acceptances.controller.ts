import { Body, Controller, Delete, Get, HttpCode, Param, Put } from "@nestjs/common";
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { AcceptanceAnswer, AcceptanceRequest } from "./acceptances.contract.ts";
import { AcceptancesService } from "./acceptances.service.ts";

@ApiTags("checks")
@Controller("books/:bookId/acceptances")
export class AcceptancesController {
  constructor(
    private readonly books: BooksService,
    private readonly acceptances: AcceptancesService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [AcceptanceAnswer], description: "The findings that the author keeps on purpose." })
  async list(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<AcceptanceAnswer[]> {
    const { id } = await this.books.own(account, bookId);
    const rows = await this.acceptances.list(id);
    return rows.map(({ subject, rule, reason, acceptedAt }) => ({
      subject,
      rule,
      reason,
      acceptedAt: acceptedAt.toISOString(),
    }));
  }

  @Put()
  @HttpCode(204)
  @ApiNoContentResponse()
  async accept(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: AcceptanceRequest,
  ): Promise<void> {
    await this.acceptances.accept((await this.books.own(account, bookId)).id, request);
  }

  @Delete(":subject/:rule")
  @HttpCode(204)
  @ApiNoContentResponse()
  async takeBack(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("subject") subject: string,
    @Param("rule") rule: string,
  ): Promise<void> {
    await this.acceptances.takeBack((await this.books.own(account, bookId)).id, subject, rule);
  }
}
