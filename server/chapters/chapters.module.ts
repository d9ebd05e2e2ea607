import { Module } from "@nestjs/common";
import { WorkersModule } from "../workers/workers.module.ts";
import { ChaptersController } from "./chapters.controller.ts";
import { ChapterWatchService } from "./chapter-watch.service.ts";
import { ChaptersService } from "./chapters.service.ts";

/** The text, chapter by chapter. */
@Module({
  imports: [WorkersModule],
  controllers: [ChaptersController],
  providers: [ChaptersService, ChapterWatchService],
  exports: [ChaptersService],
})
export class ChaptersModule {}
