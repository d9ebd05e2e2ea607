import { Module } from "@nestjs/common";
import { FilesModule } from "../files/files.module.ts";
import { LedgerModule } from "../ledger/ledger.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { AnswerWriter } from "./answer-writer.ts";
import { DestinationsService } from "./destinations.service.ts";
import { HostGates } from "./host-gates.ts";
import { HostWork } from "./host-work.ts";
import { MailDomains } from "./mail-domains.ts";
import { PageFetcher } from "./page-fetcher.ts";
import { PageTitles } from "./page-titles.ts";
import { PlannedRuns } from "./planned-runs.ts";
import { ReachController } from "./reach.controller.ts";
import { ReachService } from "./reach.service.ts";
import { SharedPace } from "./shared-pace.ts";
import { Resolver } from "./resolver.ts";

/** Runs over all destinations that can be asked. */
@Module({
  imports: [FilesModule, JobsModule, LedgerModule, WorkersModule],
  controllers: [ReachController],
  providers: [
    AnswerWriter,
    DestinationsService,
    PageFetcher,
    HostGates,
    HostWork,
    MailDomains,
    PageTitles,
    PlannedRuns,
    ReachService,
    Resolver,
    SharedPace,
  ],
  exports: [DestinationsService, HostGates, PageFetcher, ReachService],
})
export class ReachModule {}
