import { Module } from "@nestjs/common";
import { FilesModule } from "../files/files.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { FontsController } from "./fonts.controller.ts";
import { FontsService } from "./fonts.service.ts";

/** Fonts that authors bring for their books. */
@Module({
  imports: [FilesModule, WorkersModule],
  controllers: [FontsController],
  providers: [FontsService],
})
export class FontsModule {}
