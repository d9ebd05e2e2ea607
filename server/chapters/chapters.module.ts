import { Module } from "@nestjs/common";
import { ChaptersController } from "./chapters.controller.ts";
import { ChaptersService } from "./chapters.service.ts";

/** The text, chapter by chapter. */
@Module({
  controllers: [ChaptersController],
  providers: [ChaptersService],
  exports: [ChaptersService],
})
export class ChaptersModule {}
