import { Body, Controller, Get, Param, Post, Query } from "@nestjs/common";
import { ApiCreatedResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { webDestination } from "@vennet/core/destination/destination";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { PageTitles } from "./page-titles.ts";
import {
  DestinationAnswer,
  HistoryAnswer,
  HistoryQuery,
  ReachRequest,
  RunAnswer,
  TitleAnswer,
  TitleQuery,
} from "./reach.contract.ts";
import { ReachService } from "./reach.service.ts";

/** An author waits for the answer. */
const titleTimeoutMs = 10_000;

@ApiTags("reach")
@Controller("books/:bookId")
export class ReachController {
  constructor(
    private readonly books: BooksService,
    private readonly reach: ReachService,
    private readonly jobs: JobsService,
    private readonly titles: PageTitles,
  ) {}

  @Get("destinations")
  @ApiOkResponse({ type: [DestinationAnswer] })
  async destinations(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
  ): Promise<DestinationAnswer[]> {
    return this.reach.destinations((await this.books.own(account, bookId)).id);
  }

  @Get("page-title")
  @ApiOkResponse({ type: TitleAnswer })
  async title(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Query() query: TitleQuery,
  ): Promise<TitleAnswer> {
    await this.books.own(account, bookId);
    const { address } = webDestination(query.address);
    return { title: await this.titles.titleOf(address, AbortSignal.timeout(titleTimeoutMs)) };
  }

  @Get("destinations/history")
  @ApiOkResponse({ type: [HistoryAnswer], description: "What a destination answered, the newest first." })
  async history(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Query() { address }: HistoryQuery,
  ): Promise<HistoryAnswer[]> {
    return this.reach.history((await this.books.own(account, bookId)).id, address);
  }

  @Get("reach/runs")
  @ApiOkResponse({ type: [RunAnswer], description: "The runs that came to their end, the oldest first." })
  async runs(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<RunAnswer[]> {
    return this.reach.runs((await this.books.own(account, bookId)).id);
  }

  @Post("reach")
  @ApiCreatedResponse({ type: JobAnswer })
  async begin(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: ReachRequest,
  ): Promise<JobAnswer> {
    return jobAnswer(await this.reach.begin((await this.books.own(account, bookId)).id, request));
  }

  @Get("reach")
  @ApiOkResponse({ type: [JobAnswer], description: "The latest run, or none." })
  async latest(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<JobAnswer[]> {
    const job = await this.jobs.latest((await this.books.own(account, bookId)).id, "reach");
    return job ? [jobAnswer(job)] : [];
  }
}
