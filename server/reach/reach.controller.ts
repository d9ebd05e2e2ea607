import { Body, Controller, Get, HttpCode, Post, Query } from "@nestjs/common";
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { webDestination } from "@vennet/core/destination/kinds/web";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { JobAnswer, jobAnswer } from "../jobs/jobs.controller.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { Problem } from "../errors/problem.ts";
import { PageTitles } from "./page-titles.ts";
import {
  DestinationAnswer,
  DestinationsQuery,
  DestinationRequest,
  HistoryAnswer,
  HistoryQuery,
  ReachRequest,
  RunAnswer,
  TitleAnswer,
  TitleQuery,
} from "./reach.dto.ts";
import { DestinationsService } from "./destinations.service.ts";
import { ReachService } from "./reach.service.ts";

@ApiTags("reach")
@Controller("books/:bookId")
export class ReachController {
  constructor(
    private readonly reach: ReachService,
    private readonly destinations: DestinationsService,
    private readonly jobs: JobsService,
    private readonly titles: PageTitles,
  ) {}

  @Get("destinations")
  @ApiOkResponse({ type: [DestinationAnswer] })
  known(@OpenBook() book: Book, @Query() { chapter }: DestinationsQuery): Promise<DestinationAnswer[]> {
    return this.destinations.of(book.id, chapter);
  }

  @Post("destinations/looked")
  @HttpCode(204)
  @ApiNoContentResponse({ description: "That somebody has looked at what asking cannot judge is kept." })
  async looked(@OpenBook() book: Book, @Body() { address }: DestinationRequest): Promise<void> {
    if (!(await this.destinations.looked(book.id, address)))
      throw new Problem(422, "nothing-to-look-at", "Asking does not leave this destination open.", "address");
  }

  @Post("destinations/still-right")
  @HttpCode(204)
  @ApiNoContentResponse({ description: "The page as it is now is what it is compared with from now on." })
  async stillRight(@OpenBook() book: Book, @Body() { address }: DestinationRequest): Promise<void> {
    if (!(await this.destinations.stillRight(book.id, address)))
      throw new Problem(422, "nothing-changed", "This page is what it was when it was linked.", "address");
  }

  @Get("page-title")
  @ApiOkResponse({ type: TitleAnswer })
  async title(@OpenBook() book: Book, @Query() query: TitleQuery): Promise<TitleAnswer> {
    const { address } = webDestination(query.address);
    return { title: await this.titles.titleOf(book.id, address) };
  }

  @Get("destinations/history")
  @ApiOkResponse({ type: [HistoryAnswer], description: "What a destination answered, the newest first." })
  async history(@OpenBook() book: Book, @Query() { address }: HistoryQuery): Promise<HistoryAnswer[]> {
    return this.destinations.history(book.id, address);
  }

  @Get("reach/runs")
  @ApiOkResponse({ type: [RunAnswer], description: "The runs that came to their end, the oldest first." })
  async runs(@OpenBook() book: Book): Promise<RunAnswer[]> {
    return this.reach.runs(book.id);
  }

  @Post("reach")
  @ApiCreatedResponse({ type: JobAnswer })
  async begin(@OpenBook() book: Book, @Body() request: ReachRequest): Promise<JobAnswer> {
    return jobAnswer(await this.reach.begin(book.id, request));
  }

  @Get("reach")
  @ApiOkResponse({ type: [JobAnswer], description: "The latest run, or none." })
  async latest(@OpenBook() book: Book): Promise<JobAnswer[]> {
    const job = await this.jobs.latest(book.id, "reach");
    return job ? [jobAnswer(job)] : [];
  }
}
