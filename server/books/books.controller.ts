import { Body, Controller, Delete, Get, HttpCode, Patch, Post } from "@nestjs/common";
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "./book.entity.ts";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import {
  BookAnswer,
  BookStatesAnswer,
  ChangeBookRequest,
  DeletedBookAnswer,
  NewBookRequest,
} from "./books.dto.ts";
import { BooksService } from "./books.service.ts";
import { DeletedBooksService } from "./deleted-books.service.ts";

@ApiTags("books")
@Controller("books")
export class BooksController {
  constructor(
    private readonly books: BooksService,
    private readonly deleted: DeletedBooksService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [BookAnswer] })
  list(@SignedIn() account: Account): Promise<BookAnswer[]> {
    return this.books.list(account);
  }

  @Post()
  @ApiCreatedResponse({ type: BookAnswer })
  create(@SignedIn() account: Account, @Body() request: NewBookRequest): Promise<BookAnswer> {
    return this.books.create(account, request);
  }

  @Get("states")
  @ApiOkResponse({ type: [BookStatesAnswer] })
  states(@SignedIn() account: Account): Promise<BookStatesAnswer[]> {
    return this.books.states(account);
  }

  @Get("deleted")
  @ApiOkResponse({ type: [DeletedBookAnswer] })
  deletedOnes(@SignedIn() account: Account): Promise<DeletedBookAnswer[]> {
    return this.deleted.list(account);
  }

  @Post("deleted/:deletedBookId/restore")
  @HttpCode(200)
  @ApiOkResponse({ type: BookAnswer })
  async restore(@OpenBook() book: Book): Promise<BookAnswer> {
    return this.books.answer(await this.deleted.restore(book));
  }

  @Delete("deleted/:deletedBookId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async removeForGood(@OpenBook() book: Book): Promise<void> {
    await this.deleted.remove(book);
  }

  @Get(":bookId")
  @ApiOkResponse({ type: BookAnswer })
  async one(@OpenBook() book: Book): Promise<BookAnswer> {
    return this.books.answer(book);
  }

  @Patch(":bookId")
  @ApiOkResponse({ type: BookAnswer })
  async change(@OpenBook() book: Book, @Body() request: ChangeBookRequest): Promise<BookAnswer> {
    return this.books.change(book, request);
  }

  @Delete(":bookId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async remove(@OpenBook() book: Book): Promise<void> {
    await this.deleted.add(book);
  }
}
