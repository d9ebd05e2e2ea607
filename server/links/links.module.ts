import { Module } from "@nestjs/common";
import { WorkersModule } from "../workers/workers.module.ts";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { HistoryModule } from "../history/history.module.ts";
import { LedgerModule } from "../ledger/ledger.module.ts";
import { BulkEditsService } from "./bulk-edits.service.ts";
import { LinkSearchService } from "./link-search.service.ts";
import { LinksController } from "./links.controller.ts";

/** Many links at once: found, made, changed. */
@Module({
  imports: [ChaptersModule, HistoryModule, LedgerModule, WorkersModule],
  controllers: [LinksController],
  providers: [BulkEditsService, LinkSearchService],
})
export class LinksModule {}
