import { Module } from "@nestjs/common";
import { ChaptersModule } from "../chapters/chapters.module.ts";
import { HistoryModule } from "../history/history.module.ts";
import { PlacesController } from "./places.controller.ts";
import { PlacesService } from "./places.service.ts";

/** Landing places. */
@Module({
  imports: [ChaptersModule, HistoryModule],
  controllers: [PlacesController],
  providers: [PlacesService],
})
export class PlacesModule {}
