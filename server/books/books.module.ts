import { Module } from "@nestjs/common";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { BooksController } from "./books.controller.ts";
import { BooksService } from "./books.service.ts";
import { DeletedBooksService } from "./deleted-books.service.ts";
import { ManuscriptsService } from "./manuscripts.service.ts";

/** The Shelf, and manuscripts as a whole. */
@Module({
  imports: [AccountsModule, ChaptersModule, FilesModule, JobsModule],
  controllers: [BooksController],
  providers: [BooksService, DeletedBooksService, ManuscriptsService],
  exports: [BooksService, ManuscriptsService],
})
export class BooksModule {}
