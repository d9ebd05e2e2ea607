import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Patch,
  Post,
  Put,
  Sse,
  type MessageEvent,
} from "@nestjs/common";
import {
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiProduces,
  ApiTags,
} from "@nestjs/swagger";
import { map, type Observable } from "rxjs";
import { OpenBook, OpenManuscript } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import {
  ChapterAnswer,
  ChapterListingAnswer,
  ChapterRevisionAnswer,
  NewChapterRequest,
  OrderRequest,
  ChangeChapterRequest,
  SaveChapterRequest,
  ChapterSavedAnswer,
} from "./chapters.dto.ts";
import { ChapterWatchService } from "./chapter-watch.service.ts";
import { ChaptersService } from "./chapters.service.ts";

@ApiTags("chapters")
@Controller("books/:bookId/chapters")
export class ChaptersController {
  constructor(
    private readonly chapters: ChaptersService,
    private readonly watch: ChapterWatchService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [ChapterListingAnswer] })
  async list(@OpenBook() book: Book): Promise<ChapterListingAnswer[]> {
    return this.chapters.list(book.id);
  }

  @Post()
  @ApiCreatedResponse({ type: ChapterAnswer })
  async add(@OpenManuscript() book: Book, @Body() request: NewChapterRequest): Promise<ChapterAnswer> {
    return this.chapters.add(book.id, request);
  }

  @Put("order")
  @ApiOkResponse({ type: [ChapterListingAnswer] })
  async reorder(
    @OpenManuscript() book: Book,
    @Body() request: OrderRequest,
  ): Promise<ChapterListingAnswer[]> {
    return this.chapters.reorder(book.id, request.chapters);
  }

  @Sse("events")
  @ApiProduces("text/event-stream")
  @ApiOkResponse({
    type: [ChapterRevisionAnswer],
    description: "The chapters in their order with their revisions, whenever any of it has changed.",
  })
  events(@OpenBook() book: Book): Observable<MessageEvent> {
    return this.watch.watch(book.id).pipe(map((data) => ({ data })));
  }

  @Get(":chapterId")
  @ApiOkResponse({ type: ChapterAnswer })
  async read(@OpenBook() book: Book, @Param("chapterId") id: string): Promise<ChapterAnswer> {
    return this.chapters.read(book.id, id);
  }

  @Put(":chapterId")
  @ApiOkResponse({ type: ChapterSavedAnswer })
  async save(
    @OpenBook() book: Book,
    @Param("chapterId") id: string,
    @Body() request: SaveChapterRequest,
  ): Promise<ChapterSavedAnswer> {
    return this.chapters.save(book.id, id, request.revision, request.document);
  }

  @Patch(":chapterId")
  @ApiOkResponse({ type: ChapterAnswer })
  async change(
    @OpenManuscript() book: Book,
    @Param("chapterId") id: string,
    @Body() request: ChangeChapterRequest,
  ): Promise<ChapterAnswer> {
    return this.chapters.change(book.id, id, request);
  }

  @Delete(":chapterId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async remove(@OpenManuscript() book: Book, @Param("chapterId") id: string): Promise<void> {
    await this.chapters.remove(book.id, id);
  }

  @Post(":chapterId/restore")
  @ApiCreatedResponse({ type: ChapterAnswer })
  async restore(@OpenManuscript() book: Book, @Param("chapterId") id: string): Promise<ChapterAnswer> {
    return this.chapters.restore(book.id, id);
  }
}
