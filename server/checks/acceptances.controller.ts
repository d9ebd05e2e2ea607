import { Body, Controller, Delete, Get, HttpCode, Param, Put } from "@nestjs/common";
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { AcceptanceAnswer, AcceptanceRequest } from "./acceptances.dto.ts";
import { AcceptancesService } from "./acceptances.service.ts";

@ApiTags("checks")
@Controller("books/:bookId/acceptances")
export class AcceptancesController {
  constructor(private readonly acceptances: AcceptancesService) {}

  @Get()
  @ApiOkResponse({ type: [AcceptanceAnswer], description: "The findings that the author keeps on purpose." })
  async list(@OpenBook() book: Book): Promise<AcceptanceAnswer[]> {
    const { id } = book;
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
  async accept(@OpenBook() book: Book, @Body() request: AcceptanceRequest): Promise<void> {
    await this.acceptances.accept(book.id, request);
  }

  @Delete(":subject/:rule")
  @HttpCode(204)
  @ApiNoContentResponse()
  async takeBack(
    @OpenBook() book: Book,
    @Param("subject") subject: string,
    @Param("rule") rule: string,
  ): Promise<void> {
    await this.acceptances.takeBack(book.id, subject, rule);
  }
}
