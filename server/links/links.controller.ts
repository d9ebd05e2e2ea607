import { Body, Controller, Get, Header, HttpCode, Param, Post, Query } from "@nestjs/common";
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { StepAnswer } from "../history/history.contract.ts";
import { stepAnswer } from "../history/history.controller.ts";
import { BulkEditsService } from "./bulk-edits.service.ts";
import { LedgerService } from "./ledger.service.ts";
import { LinkSearchService } from "./link-search.service.ts";
import {
  AddLinksRequest,
  BulkEditRequest,
  CsvQuery,
  EditPreviewAnswer,
  LedgerAnswer,
  LedgerFilter,
  LedgerGroupAnswer,
  LedgerQuery,
  SearchAnswer,
  SearchRequest,
} from "./links.contract.ts";

@ApiTags("links")
@Controller("books/:bookId")
export class LinksController {
  constructor(
    private readonly books: BooksService,
    private readonly ledger: LedgerService,
    private readonly finding: LinkSearchService,
    private readonly bulk: BulkEditsService,
  ) {}

  @Get("links")
  @ApiOkResponse({ type: LedgerAnswer })
  async rows(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Query() query: LedgerQuery,
  ): Promise<LedgerAnswer> {
    return this.ledger.rows((await this.books.own(account, bookId)).id, query);
  }

  @Get("links/groups")
  @ApiOkResponse({
    type: [LedgerGroupAnswer],
    description: "The same links by destination, most used first.",
  })
  async groups(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Query() filter: LedgerFilter,
  ): Promise<LedgerGroupAnswer[]> {
    return this.ledger.groups((await this.books.own(account, bookId)).id, filter);
  }

  @Get("links.csv")
  @Header("Content-Type", "text/csv; charset=utf-8")
  @Header("Content-Disposition", 'attachment; filename="links.csv"')
  @ApiOkResponse({ content: { "text/csv": { schema: { type: "string" } } } })
  async csv(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Query() query: CsvQuery,
  ): Promise<string> {
    return this.ledger.csv((await this.books.own(account, bookId)).id, query);
  }

  @Post("links/search")
  @HttpCode(200)
  @ApiOkResponse({ type: SearchAnswer })
  async search(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: SearchRequest,
  ): Promise<SearchAnswer> {
    return this.finding.search((await this.books.own(account, bookId)).id, request);
  }

  @Post("links")
  @ApiCreatedResponse({ type: StepAnswer })
  async add(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: AddLinksRequest,
  ): Promise<StepAnswer> {
    return stepAnswer(await this.bulk.add((await this.books.own(account, bookId)).id, request));
  }

  @Post("links/edits/preview")
  @HttpCode(200)
  @ApiOkResponse({ type: EditPreviewAnswer })
  async preview(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: BulkEditRequest,
  ): Promise<EditPreviewAnswer> {
    return this.bulk.preview((await this.books.own(account, bookId)).id, request);
  }

  @Post("links/edits")
  @ApiCreatedResponse({ type: StepAnswer })
  async edit(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: BulkEditRequest,
  ): Promise<StepAnswer> {
    return stepAnswer(await this.bulk.apply((await this.books.own(account, bookId)).id, request));
  }
}
