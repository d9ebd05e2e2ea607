import { Module } from "@nestjs/common";
import { BooksModule } from "../books/books.module.ts";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { DriveModule } from "../drive/drive.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { HistoryModule } from "../history/history.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { LedgerModule } from "../ledger/ledger.module.ts";
import { ReachModule } from "../reach/reach.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { AcceptancesController } from "./acceptances.controller.ts";
import { AcceptancesService } from "./acceptances.service.ts";
import { FindingsController } from "./findings.controller.ts";
import { FindingsService } from "./findings.service.ts";
import { ReportController } from "./report.controller.ts";
import { SurroundingsController } from "./surroundings.controller.ts";
import { SurroundingsService } from "./surroundings.service.ts";

/** What the rules find, what is accepted of it, and the report. */
@Module({
  imports: [
    BooksModule,
    ChaptersModule,
    DriveModule,
    FilesModule,
    HistoryModule,
    JobsModule,
    LedgerModule,
    ReachModule,
    WorkersModule,
  ],
  controllers: [AcceptancesController, FindingsController, ReportController, SurroundingsController],
  providers: [AcceptancesService, FindingsService, SurroundingsService],
})
export class ChecksModule {}
