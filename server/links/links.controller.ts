import { Body, Controller, Get, Header, HttpCode, Post, Query } from "@nestjs/common";
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { StepAnswer } from "../history/history.dto.ts";
import { stepAnswer } from "../history/history.controller.ts";
import { BulkEditsService } from "./bulk-edits.service.ts";
import { LedgerService } from "../ledger/ledger.service.ts";
import { LinkSearchService } from "./link-search.service.ts";
import {
  CsvQuery,
  LedgerAnswer,
  LedgerFilter,
  LedgerGroupAnswer,
  LedgerQuery,
} from "../ledger/ledger.dto.ts";
import {
  AddLinksRequest,
  BulkEditRequest,
  EditPreviewAnswer,
  SearchAnswer,
  SearchRequest,
} from "./links.dto.ts";

@ApiTags("links")
@Controller("books/:bookId")
export class LinksController {
  constructor(
    private readonly ledger: LedgerService,
    private readonly finding: LinkSearchService,
    private readonly bulk: BulkEditsService,
  ) {}

  @Get("links")
  @ApiOkResponse({ type: LedgerAnswer })
  async rows(@OpenBook() book: Book, @Query() query: LedgerQuery): Promise<LedgerAnswer> {
    return this.ledger.rows(book.id, query);
  }

  @Get("links/groups")
  @ApiOkResponse({
    type: [LedgerGroupAnswer],
    description: "The same links by destination, most used first.",
  })
  async groups(@OpenBook() book: Book, @Query() filter: LedgerFilter): Promise<LedgerGroupAnswer[]> {
    return this.ledger.groups(book.id, filter);
  }

  @Get("links.csv")
  @Header("Content-Type", "text/csv; charset=utf-8")
  @Header("Content-Disposition", 'attachment; filename="links.csv"')
  @ApiOkResponse({ content: { "text/csv": { schema: { type: "string" } } } })
  async csv(@OpenBook() book: Book, @Query() query: CsvQuery): Promise<string> {
    return this.ledger.csv(book.id, query);
  }

  @Post("links/search")
  @HttpCode(200)
  @ApiOkResponse({ type: SearchAnswer })
  async search(@OpenBook() book: Book, @Body() request: SearchRequest): Promise<SearchAnswer> {
    return this.finding.search(book.id, request);
  }

  @Post("links")
  @ApiCreatedResponse({ type: StepAnswer })
  async add(@OpenBook() book: Book, @Body() request: AddLinksRequest): Promise<StepAnswer> {
    return stepAnswer(await this.bulk.add(book.id, request));
  }

  @Post("links/edits/preview")
  @HttpCode(200)
  @ApiOkResponse({ type: EditPreviewAnswer })
  async preview(@OpenBook() book: Book, @Body() request: BulkEditRequest): Promise<EditPreviewAnswer> {
    return this.bulk.preview(book.id, request);
  }

  @Post("links/edits")
  @ApiCreatedResponse({ type: StepAnswer })
  async edit(@OpenBook() book: Book, @Body() request: BulkEditRequest): Promise<StepAnswer> {
    return stepAnswer(await this.bulk.apply(book.id, request));
  }
}
