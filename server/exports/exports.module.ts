import { Module } from "@nestjs/common";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { BooksModule } from "../books/books.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { OperatingModule } from "../operating/operating.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { DamagedPicturesService } from "./damaged-pictures.service.ts";
import { ExportHistoryService } from "./export-history.service.ts";
import { ExportsController } from "./exports.controller.ts";
import { ExportsService } from "./exports.service.ts";
import { KeptExports } from "./kept-exports.ts";

/** Books on their way out, each with its proof. */
@Module({
  imports: [AccountsModule, BooksModule, FilesModule, JobsModule, OperatingModule, WorkersModule],
  controllers: [ExportsController],
  providers: [DamagedPicturesService, ExportHistoryService, ExportsService, KeptExports],
  exports: [KeptExports],
})
export class ExportsModule {}
