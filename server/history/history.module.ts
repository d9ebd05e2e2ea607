import { Module } from "@nestjs/common";
import { WorkersModule } from "../workers/workers.module.ts";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { HistoryController } from "./history.controller.ts";
import { StepsService } from "./steps.service.ts";
import { VersionsService } from "./versions.service.ts";

/** Versions of chapters, and steps over many links that are undone as one. */
@Module({
  imports: [ChaptersModule, WorkersModule],
  controllers: [HistoryController],
  providers: [StepsService, VersionsService],
  exports: [StepsService],
})
export class HistoryModule {}
