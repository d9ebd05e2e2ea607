import { Controller, Get, Param } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { SharedFileAnswer } from "./drive.contract.ts";
import { DriveService } from "./drive.service.ts";

@ApiTags("files")
@Controller("books/:bookId/drive")
export class DriveController {
  constructor(
    private readonly books: BooksService,
    private readonly drive: DriveService,
  ) {}

  @Get()
  @ApiOkResponse({ type: [SharedFileAnswer], description: "The shared drive's files." })
  async files(@SignedIn() account: Account, @Param("bookId") bookId: string): Promise<SharedFileAnswer[]> {
    await this.books.own(account, bookId);
    return this.drive.files();
  }
}
