import { Module } from "@nestjs/common";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { JobsModule } from "../jobs/jobs.module.ts";
import { ReachModule } from "../reach/reach.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { CopiedPages } from "./copied-pages.ts";
import { KeptController } from "./kept.controller.ts";
import { KeptService } from "./kept.service.ts";

/** Copies of linked pages that travel with the book. */
@Module({
  imports: [AccountsModule, FilesModule, JobsModule, ReachModule, WorkersModule],
  controllers: [KeptController],
  providers: [CopiedPages, KeptService],
})
export class KeptModule {}
