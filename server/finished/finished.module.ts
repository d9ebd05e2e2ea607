import { Module } from "@nestjs/common";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { BooksModule } from "../books/books.module.ts";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { ExportsModule } from "../exports/exports.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { OperatingModule } from "../operating/operating.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { FinishedController } from "./finished.controller.ts";
import { FinishedService } from "./finished.service.ts";
import { SavedVersionsService } from "./saved-versions.service.ts";

/** Finished files: PDFs that exist already, whose links are worked on in place. */
@Module({
  imports: [
    AccountsModule,
    BooksModule,
    ChaptersModule,
    ExportsModule,
    FilesModule,
    JobsModule,
    OperatingModule,
    WorkersModule,
  ],
  controllers: [FinishedController],
  providers: [FinishedService, SavedVersionsService],
})
export class FinishedModule {}
