import { Module } from "@nestjs/common";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { BooksModule } from "../books/books.module.ts";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { HistoryModule } from "../history/history.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { ReachModule } from "../reach/reach.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { ArrivalsService } from "./arrivals.service.ts";
import { ImportController } from "./import.controller.ts";
import { VersionService } from "./version.service.ts";
import { UploadsService } from "./uploads.service.ts";
import { WebPictures } from "./web-pictures.ts";
import { ImportService } from "./import.service.ts";

/** Manuscripts on their way in. */
@Module({
  imports: [
    AccountsModule,
    BooksModule,
    ChaptersModule,
    FilesModule,
    HistoryModule,
    JobsModule,
    ReachModule,
    WorkersModule,
  ],
  controllers: [ImportController],
  providers: [ArrivalsService, ImportService, UploadsService, WebPictures, VersionService],
})
export class ImportModule {}
