import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put } from "@nestjs/common";
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import {
  ChapterAnswer,
  ChapterListingAnswer,
  NewChapterRequest,
  OrderRequest,
  RenameChapterRequest,
  SaveChapterRequest,
  SavedAnswer,
} from "./chapters.contract.ts";
import { ChaptersService } from "./chapters.service.ts";

@ApiTags("chapters")
@Controller("books/:bookId/chapters")
export class ChaptersController {
  constructor(
    private readonly books: BooksService,
    private readonly chapters: ChaptersService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [ChapterListingAnswer] })
  async list(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<ChapterListingAnswer[]> {
    return this.chapters.list((await this.books.own(account, bookId)).id);
  }

  @Post()
  @ApiCreatedResponse({ type: ChapterAnswer })
  async add(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: NewChapterRequest,
  ): Promise<ChapterAnswer> {
    return this.chapters.add((await this.books.own(account, bookId)).id, request);
  }

  @Put("order")
  @ApiOkResponse({ type: [ChapterListingAnswer] })
  async reorder(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Body() request: OrderRequest,
  ): Promise<ChapterListingAnswer[]> {
    return this.chapters.reorder((await this.books.own(account, bookId)).id, request.chapters);
  }

  @Get(":chapterId")
  @ApiOkResponse({ type: ChapterAnswer })
  async read(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") id: string,
  ): Promise<ChapterAnswer> {
    return this.chapters.read((await this.books.own(account, bookId)).id, id);
  }

  @Put(":chapterId")
  @ApiOkResponse({ type: SavedAnswer })
  async save(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") id: string,
    @Body() request: SaveChapterRequest,
  ): Promise<SavedAnswer> {
    return this.chapters.save(
      (await this.books.own(account, bookId)).id,
      id,
      request.revision,
      request.document,
    );
  }

  @Patch(":chapterId")
  @ApiOkResponse({ type: ChapterAnswer })
  async rename(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") id: string,
    @Body() request: RenameChapterRequest,
  ): Promise<ChapterAnswer> {
    return this.chapters.rename((await this.books.own(account, bookId)).id, id, request.title);
  }

  @Delete(":chapterId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async remove(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") id: string,
  ): Promise<void> {
    await this.chapters.remove((await this.books.own(account, bookId)).id, id);
  }

  @Post(":chapterId/restore")
  @ApiCreatedResponse({ type: ChapterAnswer })
  async restore(
    @SignedIn() account: Account,
    @Param("bookId") bookId: string,
    @Param("chapterId") id: string,
  ): Promise<ChapterAnswer> {
    return this.chapters.restore((await this.books.own(account, bookId)).id, id);
  }
}
